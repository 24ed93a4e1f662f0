import { pow, square } from '../elementary';
import { localPolynomialFilter } from '../calculus/filter';
import { raisedWindow } from '../calculus/flattening';
import { type Measured, measured } from '../formula/dimension';
import { type Input, Program } from '../formula/program';
import { type Formula } from '../formula/tree';
import { Refusal } from '../refusal';
import { composedNoise, interpolatedNoise } from '../series/composedNoise';
import { Growing } from '../series/growing';
import { type NoisePath } from '../series/noisePath';
import { onOneGrid } from '../series/sampling';
import {
  type FilterStep,
  type Series,
  type SharedEffect,
  aloneVariance,
  pathsOf,
  sharedAt,
  valuesAtTimesOf,
  windowedBehind,
  withEffect,
} from '../series/series';
import { type Unit, divideUnits, powerOfUnit } from '../units/unit';
import { type Understood, seriesUsedBy } from './formulas';
import { type Context } from './kind';
import { type NamedResult } from './outcome';

/** What is kept of the last pass over a growing run. */
interface Kept {
  inputs: unknown[];
  values: Growing;
  settled: number;
  /** The series whose derivatives were taken, and these, leaf by leaf. */
  derivatives: { of: Series; slope: Series }[];
}

const keptOf = new WeakMap<object, Kept>();

export interface FormulaSeries {
  symbol: string;
  unit: Unit;
  /** How the derivatives in it are taken. */
  windowPoints: number;
}

/** How one leaf of the formula comes to it: a number, or a series on the grid of all. */
type Source =
  | { kind: 'result'; result: NamedResult; input: Input }
  | { kind: 'series'; series: Series; isOnGrid: boolean; input: Input };

/**
 * A series worked out reading by reading from others, from results and constants. It lies on the grid of the first series that
 * the formula speaks of; others are read at its times. Its noise follows theirs to first order, through every root that they
 * have; what is uncertain about a constant moves all its values together.
 * @throws Refusal where the formula speaks of no series, or a derivative is taken over fewer readings than its window
 */
export function seriesOfFormula(
  speaking: Understood,
  context: Context,
  wanted: FormulaSeries,
  before?: Series,
): Series {
  const [first] = seriesUsedBy(speaking).filter((reference) => reference !== 't');
  if (first === undefined)
    throw new Refusal(
      'This formula uses no series, only numbers. Make it a result instead, or use a series like x in it.',
    );
  const like = context.series(first);
  return build(speaking.formula, speaking.program, { speaking, context, like }, wanted, before);
}

interface About {
  speaking: Understood;
  context: Context;
  like: Series;
}

function build(
  formula: Formula,
  program: Program,
  about: About,
  { symbol, unit, windowPoints }: FormulaSeries,
  before?: Series,
): Series {
  const { like } = about;
  const earlier = before === undefined ? undefined : keptOf.get(before.lineage);
  const derivatives: Kept['derivatives'] = [];
  const sources = program.leaves.map(({ formula: leaf }) =>
    leaf.kind === 'derivative'
      ? slopeSource(leaf, about, windowPoints, earlier, derivatives)
      : namedSource(leaf.name, about),
  );
  const out = measured(unit);
  const identity = [
    ...sources.map((source) => (source.kind === 'result' ? source.result : source.series.lineage)),
    like.lineage,
  ];
  const goesOn =
    before !== undefined &&
    earlier !== undefined &&
    earlier.inputs.length === identity.length &&
    earlier.inputs.every((part, i) => part === identity[i]);
  const n = like.values.length;
  const kept: Kept = goesOn
    ? { ...earlier, derivatives }
    : { inputs: identity, values: new Growing(n), settled: 0, derivatives };
  const values = kept.values.extend(n);
  const inputs = sources.map(({ input }) => input);
  const from = Math.min(kept.settled, n);
  program.values(inputs, from, n - from).forEach((value, i) => {
    const own = value / out.factor - out.zero;
    values[from + i] = Number.isFinite(own) ? own : NaN;
  });
  kept.settled = Math.min(
    like.settled,
    n,
    ...sources.map((source) =>
      source.kind === 'series' ? Math.min(source.series.settled, source.isOnGrid ? Infinity : 0) : Infinity,
    ),
  );
  const lineage = goesOn ? before.lineage : {};
  keptOf.set(lineage, kept);

  const partials = sources.map((_, leaf) => {
    let found: Float64Array | null = null;
    return () => {
      if (found !== null) return found;
      found = program.partials(inputs, leaf, 0, n);
      for (let i = 0; i < n; i++) found[i] /= out.factor;
      return found;
    };
  });
  const ways = sources.flatMap((source, leaf) => {
    if (source.kind === 'result') return [];
    const { series, isOnGrid } = source;
    return pathsOf(series).map((path) => ({
      path: isOnGrid ? path : interpolatedNoise(path, series, like),
      partials: partials[leaf],
    }));
  });
  const roots = new Map<string, typeof ways>();
  for (const way of ways) {
    const known = roots.get(way.path.root.key);
    if (known === undefined) roots.set(way.path.root.key, [way]);
    else known.push(way);
  }
  const [noise = null, ...further] = [...roots.values()].map(composedNoise) as [NoisePath?, ...NoisePath[]];
  const shared = eachOnce(sources.flatMap((source, leaf) => sharedBy(source, partials[leaf], like)));
  const uncertainties = ownUncertainties(sources, partials, shared, n);
  const series = sources.flatMap((source) => (source.kind === 'series' ? [source.series] : []));
  return {
    symbol,
    quantity: formula.kind === 'name' ? (series[0]?.quantity ?? symbol) : symbol,
    unit,
    timeUnit: like.timeUnit,
    sampling: like.sampling,
    values,
    noise,
    ...(further.length > 0 ? { further } : {}),
    made: withoutDoubles(series.flatMap(({ made }) => made)),
    windowed: windowedBehind(series),
    lineage,
    settled: kept.settled,
    ...(shared.length > 0 ? { shared } : {}),
    ...(series.length > 0 && series.every(({ repeats }) => repeats === true) ? { repeats: true } : {}),
    ...(uncertainties === null ? {} : { uncertainties }),
  };
}

const inputOf = (values: number | Float64Array, { factor, zero }: Measured): Input => ({
  values,
  factor,
  zero,
});

function namedSource(name: string, { speaking, context, like }: About): Source {
  const meant = speaking.named(name);
  if (meant.kind === 'result') {
    const { quantity } = meant.result;
    return { ...meant, input: inputOf(quantity.value, measured(quantity.unit)) };
  }
  const series = context.series(meant.reference, like);
  return seriesSource(series, like);
}

const seriesSource = (series: Series, like: Series): Source => ({
  kind: 'series',
  series,
  isOnGrid: onOneGrid(series.sampling, like.sampling),
  input: inputOf(valuesAtTimesOf(series, like), measured(series.unit)),
});

/** A derivative by the abscissa, of whatever stands in it. */
function slopeSource(
  { of, order }: Extract<Formula, { kind: 'derivative' }>,
  about: About,
  windowPoints: number,
  earlier: Kept | undefined,
  derivatives: Kept['derivatives'],
): Source {
  const { like } = about;
  const before = earlier?.derivatives[derivatives.length];
  const program = new Program(of);
  const unit = siUnit;
  const window = raisedWindow({ windowPoints, degree: 2 }, about.context.raised);
  const inner = build(of, program, about, { symbol: like.symbol, unit, windowPoints }, before?.of);
  const filtered = localPolynomialFilter(
    inner,
    order === 1 ? 'the derivative' : 'the second derivative',
    { ...window, order },
    before?.slope,
  );
  // What moves all values alike has no slope.
  const shared = inner.shared
    ?.filter(({ uniform }) => uniform === undefined)
    .map((one) => ({
      ...one,
      effect: localPolynomialFilter(
        { ...inner, values: one.effect, lineage: {}, noise: null, further: undefined, shared: undefined },
        '',
        { ...window, order },
      ).values,
    }));
  // The inner series is in SI units, and so is its slope, but for the unit of the abscissa.
  const slope: Series = {
    ...inner,
    ...filtered,
    ...(shared === undefined ? {} : { shared }),
    unit: divideUnits([], powerOfUnit(like.timeUnit, order)),
    uncertainties: undefined,
  };
  derivatives.push({ of: inner, slope });
  const { factor } = measured(like.timeUnit);
  return {
    kind: 'series',
    series: slope,
    isOnGrid: true,
    input: { values: slope.values, factor: pow(factor, -order), zero: 0 },
  };
}

const siUnit: Unit = [];

/** What moves the values together: what is uncertain about a number, and what moved a series together already. */
function sharedBy(source: Source, partials: () => Float64Array, like: Series): SharedEffect[] {
  if (source.kind === 'result') {
    const { quantity } = source.result;
    if (quantity.standardUncertainty === null) return [];
    return quantity.influences().map(({ root, label, effect: by }) => ({
      root,
      label,
      by,
      get effect() {
        return partials();
      },
    }));
  }
  const { series, isOnGrid } = source;
  return (series.shared ?? []).map((one) =>
    withEffect(
      one,
      partials().map(
        (partial, i) =>
          partial * (isOnGrid ? one.effect[i] : valuesAtTimesOf({ ...series, values: one.effect }, like)[i]),
      ),
    ),
  );
}

/**
 * What moves the values in several places of a formula moves them once, by the sum. Numbers that come from the readings of one root,
 * each by weights of its own, stay apart: what they share is in these.
 */
function eachOnce(all: readonly SharedEffect[]): SharedEffect[] {
  const byRoot = new Map<string, SharedEffect>();
  const apart: SharedEffect[] = [];
  for (const one of all) {
    if (one.by !== undefined) {
      apart.push(one);
      continue;
    }
    const known = byRoot.get(one.root);
    byRoot.set(
      one.root,
      known === undefined
        ? one
        : withEffect(
            known,
            known.effect.map((effect, i) => effect + one.effect[i]),
          ),
    );
  }
  return [...byRoot.values(), ...apart];
}

/** Uncertainties of values that were taken one by one, with what moves them together; null where no series has such. */
function ownUncertainties(
  sources: readonly Source[],
  partials: readonly (() => Float64Array)[],
  shared: readonly SharedEffect[],
  n: number,
): Float64Array | null {
  if (!sources.some((source) => source.kind === 'series' && source.series.uncertainties !== undefined))
    return null;
  const squares = new Float64Array(n);
  sources.forEach((source, leaf) => {
    if (source.kind === 'result' || source.series.uncertainties === undefined || !source.isOnGrid) return;
    const { uncertainties, shared: together = [] } = source.series;
    const slope = partials[leaf]();
    for (let i = 0; i < n; i++)
      squares[i] += slope[i] === 0 ? 0 : square(slope[i]) * aloneVariance(uncertainties[i], together, i);
  });
  for (const one of shared) for (let i = 0; i < n; i++) squares[i] += square(sharedAt(one, i));
  return squares.map(Math.sqrt);
}

function withoutDoubles(steps: readonly FilterStep[]): FilterStep[] {
  const seen = new Set<string>();
  return steps.filter((step) => {
    const key = JSON.stringify(step);
    return !seen.has(key) && seen.add(key);
  });
}
