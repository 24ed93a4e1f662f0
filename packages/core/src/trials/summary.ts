import { square } from '../elementary';
import { orRefusal, Refusal } from '../refusal';
import { type Influence, type Quantity, exactly, merged, varianceOf, withShared } from '../results/quantity';
import { scaledSpan } from '../series/noisePath';
import { describe } from '../statistics/describe';
import { type Unit } from '../units/unit';
import { intervalUnit } from '../units/temperature';

/** What is said of the numbers of a column, of all rows or of a group. */
export interface Summary {
  count: number;
  /** ± is the standard error of the mean, s/√n, with what the numbers owe to one source counted once. */
  mean: Quantity | null;
  standardDeviation: Quantity | null;
  standardError: Quantity | null;
  /** By 1/u² of what is uncertain about each number alone; null where one of them has no uncertainty. */
  weightedMean: Quantity | null;
  /** Σ (x − weighted mean)²/u² over n − 1: about one where the numbers scatter as far as their uncertainties say. */
  reducedChiSquared: number | null;
  minimum: number | null;
  maximum: number | null;
  range: number | null;
}

const empty: Summary = {
  count: 0,
  mean: null,
  standardDeviation: null,
  standardError: null,
  weightedMean: null,
  reducedChiSquared: null,
  minimum: null,
  maximum: null,
  range: null,
};

/** Roots that move more than one of some numbers. */
function rootsOfSeveral(all: readonly (readonly Influence[])[]): Set<string> {
  const [seen, several] = [new Set<string>(), new Set<string>()];
  for (const own of all)
    for (const { root } of own) {
      if (seen.has(root)) several.add(root);
      seen.add(root);
    }
  return several;
}

/**
 * What is said of numbers that are measurements of their own. What several of them owe to one source (a length, a calibration) is
 * the same for all, so that repeating does not make it smaller (JCGM 100:2008, 4.2.3 and F.1.2).
 * @param quantities of one unit
 * @param root names their scatter, which is their own: another one for other numbers
 */
export function summaryOf(quantities: readonly Quantity[], unit: Unit, root = 'scatter'): Summary {
  const count = quantities.length;
  if (count === 0) return empty;
  const values = Float64Array.from(quantities, ({ value }) => value);
  const { mean, standardDeviation, minimum, maximum } = describe(values);
  const all = quantities.map((quantity) => {
    const found = orRefusal(() => merged(quantity.influences()));
    return found instanceof Refusal ? [] : found;
  });
  const several = rootsOfSeveral(all);
  const between = intervalUnit(unit);
  const spread = count > 1 ? standardDeviation : null;
  const spreadOfSpread = spread === null ? null : spread / Math.sqrt(2 * (count - 1));
  const plain = (value: number, u: number | null): Quantity => ({
    ...exactly(value, between),
    standardUncertainty: u !== null && u > 0 ? u : null,
    degreesOfFreedom: count - 1,
  });
  const weighted = weightedMean(quantities, all, several, unit);
  return {
    count,
    mean: meanOf(values, mean, spread, { all, several, unit, root }),
    standardDeviation: spread === null ? null : plain(spread, spreadOfSpread),
    standardError:
      spread === null ? null : plain(spread / Math.sqrt(count), (spreadOfSpread ?? 0) / Math.sqrt(count)),
    weightedMean: weighted?.mean ?? null,
    reducedChiSquared: weighted === null || count < 2 ? null : weighted.chiSquared / (count - 1),
    minimum,
    maximum,
    range: maximum - minimum,
  };
}

function meanOf(
  values: Float64Array,
  mean: number,
  spread: number | null,
  {
    all,
    several,
    unit,
    root: ownRoot,
  }: {
    all: readonly (readonly Influence[])[];
    several: ReadonlySet<string>;
    unit: Unit;
    root: string;
  },
): Quantity {
  const count = values.length;
  const common = merged(
    all.flatMap((own) =>
      own
        .filter(({ root }) => several.has(root))
        .map((one) => ({ ...one, effect: scaledSpan(one.effect, 1 / count) })),
    ),
  );
  // A single number has no scatter: it is as uncertain as it is itself.
  if (spread === null) {
    const variance = all[0].reduce((sum, influence) => sum + varianceOf(influence), 0);
    return {
      ...exactly(mean, unit),
      standardUncertainty: variance > 0 ? Math.sqrt(variance) : null,
      influences: () => [...all[0]],
    };
  }
  const own = {
    standardUncertainty: spread / Math.sqrt(count),
    degreesOfFreedom: count - 1,
    influences: (): Influence[] => [
      {
        root: ownRoot,
        label: 'scatter',
        effect: { first: 0, weights: Float64Array.of(spread / Math.sqrt(count)) },
      },
    ],
  };
  const known = withShared(own, common);
  return {
    value: mean,
    unit,
    ...known,
    standardUncertainty: (known.standardUncertainty ?? 0) > 0 ? known.standardUncertainty : null,
    influences: () => [...own.influences(), ...common],
  };
}

/** The mean by weights of 1/u² (JCGM 100:2008 has it as an example of least squares; any textbook). */
function weightedMean(
  quantities: readonly Quantity[],
  all: readonly (readonly Influence[])[],
  several: ReadonlySet<string>,
  unit: Unit,
): { mean: Quantity; chiSquared: number } | null {
  const alone = all.map((own, i) => {
    const whole = square(quantities[i].standardUncertainty ?? 0);
    const common = own
      .filter(({ root }) => several.has(root))
      .reduce((sum, influence) => sum + varianceOf(influence), 0);
    return whole - common;
  });
  if (!alone.every((variance, i) => variance > 1e-9 * square(quantities[i].standardUncertainty ?? 0)))
    return null;
  const total = alone.reduce((sum, variance) => sum + 1 / variance, 0);
  const weights = alone.map((variance) => 1 / variance / total);
  const value = quantities.reduce((sum, quantity, i) => sum + weights[i] * quantity.value, 0);
  const influences = merged(
    all.flatMap((own, i) => own.map((one) => ({ ...one, effect: scaledSpan(one.effect, weights[i]) }))),
  );
  return {
    mean: {
      value,
      unit,
      standardUncertainty: Math.sqrt(influences.reduce((sum, influence) => sum + varianceOf(influence), 0)),
      degreesOfFreedom: Infinity,
      influences: () => influences,
    },
    chiSquared: quantities.reduce((sum, quantity, i) => sum + square(quantity.value - value) / alone[i], 0),
  };
}

/** Whether numbers scatter as far as their uncertainties say, in words; null where nobody can tell. */
export function scatterWords({
  count,
  reducedChiSquared,
}: Pick<Summary, 'count' | 'reducedChiSquared'>): string | null {
  if (reducedChiSquared === null) return null;
  // χ² has the variance 2 ν (any textbook of statistics).
  const off = (reducedChiSquared - 1) * Math.sqrt((count - 1) / 2);
  const times = Math.sqrt(reducedChiSquared).toPrecision(2);
  if (off > 3) return `They scatter ${times} times as far as their uncertainties say.`;
  if (off < -3) return `They scatter only ${times} times as far as their uncertainties say.`;
  return 'They scatter as far as their uncertainties say.';
}
