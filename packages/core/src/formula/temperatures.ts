import { pow } from '../elementary';
import { type TemperatureKind, temperatureKind } from '../units/temperature';
import { type Unit } from '../units/unit';
import { FormulaFault } from './fault';
import { isPi, sameName } from './names';
import { plainValue } from './plainValue';
import { type Formula } from './tree';

/**
 * How a part of a formula moves when the zero of its temperatures moves: by `fixed` times as much, and so many times as much as
 * each open name stands for. A point on the scale moves with it (1), an interval does not (0), twice a point moves twice.
 */
interface Weight {
  fixed: number;
  of: ReadonlyMap<string, number>;
  /** Kelvin of which nothing says whether they are a point or an interval: beside a point they are an interval. */
  isEither: boolean;
}

/** What the temperatures of a formula are. */
export interface Temperatures {
  /** What the whole is, where it is a temperature at all. */
  kind: TemperatureKind;
  /** Open names that are points on the scale; the others are intervals. */
  points: ReadonlySet<string>;
}

const none: ReadonlyMap<string, number> = new Map();
const fixed = (times: number): Weight => ({ fixed: times, of: none, isEither: false });
const either: Weight = { fixed: 0, of: none, isEither: true };

/** a + factor · b. */
function sum(a: Weight, b: Weight, factor: number): Weight {
  const of = new Map(a.of);
  for (const [name, times] of b.of) of.set(name, (of.get(name) ?? 0) + factor * times);
  return { fixed: a.fixed + factor * b.fixed, of, isEither: a.isEither && b.isEither };
}

/** More open temperatures than this are not sorted into points and intervals. */
const mostOpen = 8;

/**
 * Tells points on a scale of temperature from intervals: point − point is an interval, point ± interval a point, and a point that
 * is multiplied, squared or given to a function counts in kelvin.
 * @param unitOf unit of a name; undefined of one that the formula leaves open
 * @param open names that are temperatures and are found by a fit
 * @param wanted what the whole has to be, where that is known
 * @throws FormulaFault where two points are added, or a point is taken off an interval
 */
export function temperaturesIn(
  formula: Formula,
  text: string,
  unitOf: (name: string) => Unit | undefined,
  open: readonly string[],
  wanted: TemperatureKind | null,
): Temperatures {
  const trials = open.length > mostOpen ? [new Set<string>()] : subsetsOf(open);
  const goal = wanted === 'point' ? 1 : wanted === 'interval' ? 0 : null;
  let best: { points: ReadonlySet<string>; cost: number; weight: Weight } | null = null;
  let fault: FormulaFault | null = null;
  for (const points of trials) {
    try {
      const { weight, loose } = weighed(formula, text, unitOf, points);
      const isMissed = goal !== null && !(weight.isEither && goal === 0) && weight.fixed !== goal;
      const cost = (isMissed ? 1000 : 0) + 10 * loose + points.size;
      if (best === null || cost < best.cost) best = { points, cost, weight };
    } catch (error) {
      if (!(error instanceof FormulaFault)) throw error;
      fault ??= error;
    }
  }
  if (best === null) throw fault ?? new RangeError('a formula has a weight or a fault');
  const { weight, points } = best;
  const kind = weight.isEither
    ? 'either'
    : weight.fixed === 1
      ? 'point'
      : weight.fixed === 0
        ? 'interval'
        : 'either';
  return { kind, points };
}

function subsetsOf(names: readonly string[]): Set<string>[] {
  return Array.from(
    { length: pow(2, names.length) },
    (_, mask) => new Set(names.filter((__, i) => (mask >> i) % 2 === 1)),
  );
}

/** The weight of a formula, and how many of its open names would be factors though they are points. */
function weighed(
  formula: Formula,
  text: string,
  unitOf: (name: string) => Unit | undefined,
  points: ReadonlySet<string>,
): { weight: Weight; loose: number } {
  let loose = 0;
  const isPoint = (name: string) => [...points].some((point) => sameName(point) === sameName(name));
  const cited = ({ from, to }: Formula) => `“${text.slice(from, to).trim()}”`;
  const openIn = (part: Formula): number => {
    switch (part.kind) {
      case 'number':
        return 0;
      case 'name':
        return isPoint(part.name) ? 1 : 0;
      case 'negative':
      case 'derivative':
        return openIn(part.of);
      case 'call':
        return part.of.reduce((count, one) => count + openIn(one), 0);
      default:
        return openIn(part.left) + openIn(part.right);
    }
  };
  /** A factor in kelvin: where it still moves with the zero though open names in it could be chosen otherwise, that is counted. */
  const inKelvin = (part: Formula) => {
    const { fixed: times } = look(part);
    if (times !== 0) loose += openIn(part);
  };
  const ofUnit = (unit: Unit): Weight => {
    const kind = temperatureKind(unit);
    return kind === 'point' ? fixed(1) : kind === 'interval' ? fixed(0) : either;
  };
  const together = (whole: Formula, a: Formula, b: Formula, sign: 1 | -1): Weight => {
    const [left, right] = [look(a), look(b)];
    if (left.isEither && right.fixed === 1 && sign === -1) return fixed(0);
    if (left.fixed === 1 && right.fixed === 1 && sign === 1)
      throw new FormulaFault(
        `${cited(a)} and ${cited(b)} are both temperatures on a scale, which cannot be added. Add a difference in K instead; the middle of both is T1 + (T2 − T1)/2.`,
        whole.from,
        whole.to,
      );
    const total = sum(left, right, sign);
    if (total.fixed === -1 && left.fixed === 0)
      throw new FormulaFault(
        `${cited(b)} is a temperature on a scale, which cannot be taken off ${cited(a)}, a difference of temperatures. Change their order.`,
        whole.from,
        whole.to,
      );
    return { ...total, isEither: left.isEither && right.isEither };
  };
  const look = (part: Formula): Weight => {
    switch (part.kind) {
      case 'number':
        return part.unit === null ? either : ofUnit(part.unit);
      case 'name': {
        const unit = isPi(part.name) ? [] : unitOf(part.name);
        if (unit !== undefined) return ofUnit(unit);
        return fixed(isPoint(part.name) ? 1 : 0);
      }
      case 'negative': {
        const { fixed: times, isEither } = look(part.of);
        return { ...fixed(times === 0 ? 0 : -times), isEither };
      }
      case 'sum':
        return together(part, part.left, part.right, 1);
      case 'difference':
        return together(part, part.left, part.right, -1);
      case 'product':
      case 'quotient': {
        const [left, right] = [plainValue(part.left), plainValue(part.right)];
        const times = part.kind === 'quotient' ? (right === null ? null : 1 / right) : (left ?? right);
        const factor = part.kind === 'product' && left !== null ? part.right : part.left;
        if (times !== null) {
          const { fixed: by, isEither } = look(factor);
          return { ...fixed(times * by), isEither };
        }
        const weights = [look(part.left), look(part.right)];
        inKelvin(part.left);
        inKelvin(part.right);
        // An interval times a plain number is one.
        const isInterval = weights.some(({ fixed: by, isEither }) => by === 0 && !isEither);
        return isInterval && weights.every(({ fixed: by }) => by === 0) ? fixed(0) : either;
      }
      case 'power':
        inKelvin(part.left);
        return either;
      case 'derivative':
        return either;
      case 'call': {
        const all = part.of.map(look);
        const [first, second] = all;
        if (part.name !== 'abs' && part.name !== 'min' && part.name !== 'max') {
          part.of.forEach(inKelvin);
          return either;
        }
        if (second === undefined)
          return first.fixed === 0 ? first : { ...fixed(Math.abs(first.fixed)), isEither: false };
        if (first.isEither) return second;
        if (second.isEither || first.fixed === second.fixed) return first;
        throw new FormulaFault(
          `${cited(part.of[0])} and ${cited(part.of[1])} cannot be compared: one is a temperature on a scale, the other a difference.`,
          part.from,
          part.to,
        );
      }
    }
  };
  return { weight: look(formula), loose };
}
