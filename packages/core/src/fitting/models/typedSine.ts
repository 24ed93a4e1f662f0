import { log2, pow } from '../../elementary';
import { sameName } from '../../formula/names';
import { parsed } from '../../formula/parsed';
import { Program } from '../../formula/program';
import { type Formula, namesIn, partsOf } from '../../formula/tree';
import { one } from '../../units/unit';
import { type FitPoints } from '../relation';
import { endsOf } from './shapedSolution';
import { searchSwing } from './swingGuess';
import { TypedFunction, type TypedModel } from './typedFunction';

/** The angle of a sine or cosine in a typed formula that grows evenly along the axis. */
interface Angle {
  /** Over all free parameters of the formula. */
  angle: TypedFunction;
  /** The free parameter that is solved for where the rate of the angle is known; null where that is fixed. */
  rate: number | null;
  /** The free parameter that moves the angle and not its rate; null where none does. */
  phase: number | null;
}

/** Frequencies that are tried, and phases for each. */
const mostFrequencies = 3;
const phases = Array.from({ length: 8 }, (_, k) => (k * Math.PI) / 4);
const readingsPerCycle = 2.2;

/** Sines and cosines of a formula, the outermost first. */
function wavesIn(formula: Formula): Formula[] {
  const own = formula.kind === 'call' && ['sin', 'cos'].includes(formula.name) ? [formula.of[0]] : [];
  return [...own, ...partsOf(formula).flatMap(wavesIn)];
}

/** The first angle of a formula in which a parameter that is to be found sets the pace; null where there is none. */
function angleIn(model: TypedModel, free: TypedFunction['free'], x: number): Angle | null {
  for (const formula of wavesIn(parsed(model.text))) {
    const names = namesIn(formula).map(sameName);
    if (!names.includes(sameName(model.xName))) continue;
    const angle = new TypedFunction({ ...model, program: new Program(formula), yUnit: one });
    const base = free.map(({ start }) => start ?? 1);
    const moved = (place: number) => base.map((value, i) => (i === place ? 2 * value : value));
    const rateOf = (values: readonly number[]) => angle.slope(values, x);
    const isOpen = (place: number) =>
      free[place].start === null && names.includes(sameName(free[place].name));
    const places = free.map((_, i) => i).filter(isOpen);
    const rate = places.find((place) => rateOf(moved(place)) !== rateOf(base)) ?? null;
    if (rate === null) continue;
    const phase =
      places.find((place) => {
        const changes =
          angle.values(moved(place), Float64Array.of(x))[0] !== angle.values(base, Float64Array.of(x))[0];
        return place !== rate && changes && rateOf(moved(place)) === rateOf(base);
      }) ?? null;
    return { angle, rate, phase };
  }
  return null;
}

/** The value of a parameter at which a power of it gives a rate; null where the rate is no power of it. */
function solvedRate(
  { angle, rate }: Angle,
  base: readonly number[],
  x: number,
  wanted: number,
): number | null {
  const at = (value: number) =>
    angle.slope(
      base.map((own, i) => (i === rate ? value : own)),
      x,
    );
  const [single, double] = [at(1), at(2)];
  const power = log2(double / single);
  const found = pow(wanted / single, 1 / power);
  return Number.isFinite(found) && Math.abs(at(found) / wanted - 1) < 1e-6 ? found : null;
}

/**
 * Starts for the pace and the phase of a typed sine, from the frequencies at which the points swing: pairs of places among the free
 * parameters with their values. Empty where the formula holds no sine whose pace is to be found.
 */
export function waveStarts(
  model: TypedModel,
  free: TypedFunction['free'],
  { x, y }: FitPoints,
): Map<number, number>[] {
  const { low, high } = endsOf(x);
  const [middle, reach] = [(low + high) / 2, (high - low) / 2];
  if (!(reach > 0) || x.length < 4) return [];
  const found = angleIn(model, free, middle);
  if (found?.rate == null) return [];
  const { rate, phase, angle } = found;
  const u = x.map((place) => (place - middle) / reach);
  const { candidates } = searchSwing({ u, y, step: null, onLine: false }, 0.4, x.length / readingsPerCycle);
  const base = free.map(({ start }) => start ?? 1);
  return candidates.slice(0, mostFrequencies).flatMap(({ angular }) => {
    const pace = solvedRate(found, base, middle, angular / reach);
    if (pace === null) return [];
    const paced = base.map((value, i) => (i === rate ? pace : value));
    if (phase === null) return [new Map([[rate, pace]])];
    const at = (value: number) =>
      angle.values(
        paced.map((own, i) => (i === phase ? value : own)),
        Float64Array.of(middle),
      )[0];
    const [none, single] = [at(0), at(1) - at(0)];
    return phases.map((wanted) => {
      // The turn of the angle that needs the least of the phase.
      const turns = (wanted - none) / (2 * Math.PI);
      const missing = 2 * Math.PI * (turns - Math.round(turns));
      return new Map([
        [rate, pace],
        [phase, missing / single],
      ]);
    });
  });
}
