import { Refusal, orRefusal } from '../../refusal';
import { type Solution, type SolverOptions, leastSquares } from '../levenbergMarquardt';
import { type FitPoints, type Relation, type RelationSolution } from '../relation';
import { endsOf } from './shapedSolution';
import { chanceOfBest, chanceOfGain } from '../../statistics/significance';
import { scatterOf } from '../scatter';
import { TypedFunction, type TypedModel } from './typedFunction';
import { waveStarts } from './typedSine';
import { startsOf } from './typedStarts';

/** A relation that somebody typed. */
export function typedRelation(model: TypedModel): Relation & { function: TypedFunction } {
  const typed = new TypedFunction(model);
  const { free } = typed;
  const parameterCount = free.length;
  return {
    function: typed,
    key: model.text,
    title: 'formula',
    whenDependent:
      'Some parameters cannot be told apart here: they do the same to the curve. Leave one out, hold one, or make the region longer.',
    formula: model.text,
    letters: { formula: model.text, of: free.map(({ name }) => name) },
    parameterCount,
    movable: true,
    parameterNames: () =>
      free.map(({ name, unit }, i) => ({ key: name, name, unit: unit ?? [], main: i === 0 })),
    value: (parameters, x) => typed.values(parameters, Float64Array.of(x))[0],
    solve(points, { near }) {
      if (parameterCount === 0)
        throw new Refusal(
          'There is nothing to fit in this formula. Use a name that has no value yet, or stop holding a parameter.',
        );
      const { parameters, solution, places } = solveTyped(typed, points, near);
      return amongPlaces(typed, points, parameters, places, solution);
    },
    remarks(_points, { named, solution }) {
      return named(solution.parameters).flatMap((value, i) => {
        const { name, low, high, held } = free[i];
        if (held)
          return [`${name} is to be held but no value was typed for it, so it is fitted. Type its value.`];
        return value === low || value === high
          ? [
              `${name} is at its limit, ${String(value).replace('-', '−')}; it counts as held there, and has no uncertainty of its own.`,
            ]
          : [];
      });
    },
  };
}

/** A solution in those parameters alone that stand at no bound. */
function amongPlaces(
  typed: TypedFunction,
  points: FitPoints,
  parameters: readonly number[],
  places: readonly number[],
  solution: Solution,
): RelationSolution {
  const whole = (own: readonly number[]) =>
    parameters.map((value, i) => (places.includes(i) ? own[places.indexOf(i)] : value));
  const { free } = typed;
  const isBounded = free.some(({ low, high }) => low !== null || high !== null);
  return {
    solution,
    named: whole,
    transformation: parameters.map((_, i) => places.map((place) => Number(place === i))),
    value: (own, x) => typed.values(whole(own), Float64Array.of(x))[0],
    slope: (own, x) => typed.slope(whole(own), x),
    gradient: (own, x) => places.map((place) => typed.partials(whole(own), place, Float64Array.of(x))[0]),
    ...(isBounded
      ? {
          bounded: {
            bounds: free,
            parameters,
            among: (all: readonly number[], some: readonly number[]) =>
              amongPlaces(typed, points, all, some, solutionAt(typed, points, all, some)),
          },
        }
      : {}),
  };
}

interface Solved {
  /** All free parameters. */
  parameters: number[];
  solution: Solution;
  /** Which of them the solver moved: those that stand at no bound. */
  places: number[];
}

function solveTyped(typed: TypedFunction, { x, y }: FitPoints, near: readonly number[] | null): Solved {
  const { free } = typed;
  const all = free.map((_, i) => i);
  const isBounded = free.some(({ low, high }) => low !== null || high !== null);
  const from = (start: readonly number[], options: SolverOptions = {}): Solved | Refusal =>
    orRefusal(() => {
      const bounds = isBounded ? { bounds: free } : {};
      const solution = leastSquares(
        typed.asModel(x, (some) => [...some], all),
        y,
        start,
        {
          ...options,
          ...bounds,
        },
      );
      const { parameters } = solution;
      const places = all.filter((i) => parameters[i] !== free[i].low && parameters[i] !== free[i].high);
      if (places.length === all.length) return { parameters, solution, places };
      return { parameters, solution: amongFree(typed, { x, y }, parameters, places), places };
    });
  if (near !== null && near.length === free.length) {
    const nearby = from(near, { tolerance: 1e-7, believed: 1e-4, damping: 1e-9 });
    if (!(nearby instanceof Refusal)) return nearby;
  }
  const isGiven = free.every(({ start }) => start !== null);
  const waves = isGiven ? [] : waveStarts(typed.model, free, { x, y });
  const starts = isGiven
    ? [free.map(({ start }) => start ?? NaN)]
    : startsOf(typed, { x, y }, scalesOf(x, y), waves);
  let best: Solved | null = null;
  let why: Refusal | null = null;
  for (const start of starts) {
    const found = from(start);
    if (found instanceof Refusal) why ??= found;
    else if (best === null || isBetter(found, best)) best = found;
  }
  if (best !== null && waves.length > 0) mustExplain(best.solution, y, free.length);
  if (best === null)
    throw new Refusal(
      `${why?.message ?? 'The formula has no finite value here.'} Type start values that are near what you expect.`,
    );
  return best;
}

/** Sums that differ by less than this share of themselves are those of one curve, written with other numbers. */
const sameSum = 1e-9;

/** Whether a solution lies lower; of those that are one curve, the one with fewer negative numbers, and then the smaller ones. */
function isBetter(a: Solved, b: Solved): boolean {
  const [low, high] = [a.solution.residualSumOfSquares, b.solution.residualSumOfSquares];
  if (Math.abs(low - high) > sameSum * (low + high)) return low < high;
  const negative = ({ parameters }: Solved) => parameters.filter((value) => value < 0).length;
  const size = ({ parameters }: Solved) => parameters.reduce((sum, value) => sum + Math.abs(value), 0);
  return negative(a) < negative(b) || (negative(a) === negative(b) && size(a) < size(b));
}

/** Noise alone makes some start look as good once in a thousand intervals. */
const believable = 1e-3;

/** Starts that were found are believed only where the curve says more than a constant. @throws Refusal */
function mustExplain(solution: Solution, y: Float64Array, parameterCount: number): void {
  const { total } = scatterOf(y);
  const degrees = y.length - parameterCount;
  if (parameterCount < 3 || degrees < 1) return;
  const chance = chanceOfBest(
    chanceOfGain(total, solution.residualSumOfSquares, parameterCount - 1, degrees),
    // About so many frequencies can be told apart.
    y.length / 2,
  );
  if (chance > believable)
    throw new Refusal(
      'This formula explains these readings no better than a constant, from all start values that were tried. Type start values that are near what you expect.',
    );
}

/** The solution once more, over those parameters alone that stand at no bound. */
function amongFree(
  typed: TypedFunction,
  { x, y }: FitPoints,
  parameters: readonly number[],
  places: readonly number[],
): Solution {
  const whole = (some: readonly number[]) =>
    parameters.map((value, i) => (places.includes(i) ? some[places.indexOf(i)] : value));
  if (places.length === 0) return solutionAt(typed, { x, y }, parameters, places);
  return leastSquares(
    typed.asModel(x, whole, places),
    y,
    places.map((place) => parameters[place]),
    { bounds: places.map((place) => typed.free[place]), damping: 1e-9 },
  );
}

/** Parameters as a solution that nobody has searched for. */
function solutionAt(
  typed: TypedFunction,
  { x, y }: FitPoints,
  parameters: readonly number[],
  places: readonly number[],
): Solution {
  const residuals = () => typed.values(parameters, x).map((value, i) => y[i] - value);
  return {
    parameters: places.map((place) => parameters[place]),
    residualSumOfSquares: residuals().reduce((sum, residual) => sum + residual * residual, 0),
    triangle: [],
    residuals,
    jacobian: () => places.map((place) => typed.partials(parameters, place, x)),
    iterations: 0,
    reason: 'solved at once',
  };
}

function scalesOf(x: Float64Array, y: Float64Array): { x: number; y: number; middle: number } {
  const [across, up] = [endsOf(x), endsOf(y)];
  return {
    x: across.high - across.low || Math.abs(across.high) || 1,
    y: up.high - up.low || Math.abs(up.high) || 1,
    middle: (across.high + across.low) / 2,
  };
}
