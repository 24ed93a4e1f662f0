import { log, pow } from '../elementary';
import { FormulaFault } from './fault';
import { measured } from './dimension';
import { type FormulaFunction, functions } from './functions';
import { isPi, sameName } from './names';
import { type Formula } from './tree';

/** So many values are worked on at a time, so that all steps of a formula stay in the cache. */
const blockLength = 1024;

type Step =
  | { kind: 'number'; value: number }
  | { kind: 'leaf'; leaf: number }
  | { kind: 'negative'; a: number }
  | { kind: 'sum' | 'difference' | 'product' | 'quotient' | 'power'; a: number; b: number }
  | { kind: 'call'; does: FormulaFunction; a: number; b: number };

/** What a formula is worked out from: a value, or one for each place. Its SI value is factor × (value + zero). */
export interface Input {
  values: number | Float64Array;
  factor: number;
  zero: number;
}

const inSi = (values: number): Input => ({ values, factor: 1, zero: 0 });

/** How a leaf is called, and what it stands for. */
export interface Leaf {
  /** A name, or a derivative that is worked out beforehand. */
  formula: Extract<Formula, { kind: 'name' | 'derivative' }>;
}

/**
 * A formula made ready to be worked out over arrays. There are no words of a program behind it, only these steps: nothing but
 * numbers can be reached from a formula.
 */
export class Program {
  private readonly steps: Step[] = [];
  readonly leaves: Leaf[] = [];
  /** For each step, whether it hangs on a leaf. */
  private readonly hangsOn: boolean[][] = [];

  /** @throws FormulaFault where it is too long */
  constructor(formula: Formula) {
    this.add(formula);
    for (const step of this.steps) {
      const below = 'a' in step ? [step.a, ...('b' in step ? [step.b] : [])] : [];
      this.hangsOn.push(
        this.leaves.map((_, leaf) =>
          step.kind === 'leaf' ? step.leaf === leaf : below.some((at) => this.hangsOn[at][leaf]),
        ),
      );
    }
  }

  private add(part: Formula): number {
    switch (part.kind) {
      case 'number': {
        const { factor, zero } = measured(part.unit ?? []);
        return this.push({ kind: 'number', value: factor * (part.value + zero) });
      }
      case 'name':
        if (isPi(part.name)) return this.push({ kind: 'number', value: Math.PI });
        return this.push({ kind: 'leaf', leaf: this.leafOf(part) });
      case 'derivative':
        return this.push({ kind: 'leaf', leaf: this.leafOf(part) });
      case 'negative':
        return this.push({ kind: 'negative', a: this.add(part.of) });
      case 'call': {
        const [first, second] = part.of;
        const a = this.add(first);
        return this.push({
          kind: 'call',
          does: functions[part.name],
          a,
          b: second === undefined ? a : this.add(second),
        });
      }
      default: {
        const a = this.add(part.left);
        return this.push({ kind: part.kind, a, b: this.add(part.right) });
      }
    }
  }

  private push(step: Step): number {
    return this.steps.push(step) - 1;
  }

  private leafOf(formula: Leaf['formula']): number {
    if (formula.kind === 'name') {
      const known = this.leaves.findIndex(
        ({ formula: other }) => other.kind === 'name' && sameName(other.name) === sameName(formula.name),
      );
      if (known >= 0) return known;
    }
    if (this.leaves.length >= 40)
      throw new FormulaFault('A formula uses 40 quantities at most.', formula.from, formula.to);
    return this.leaves.push({ formula }) - 1;
  }

  /** The value for single numbers. @param inputs in SI units, one for each leaf */
  valueOf(inputs: readonly number[]): number {
    return this.values(inputs.map(inSi), 0, 1)[0];
  }

  /** Values in SI units from index `first` on. @param inputs one for each leaf */
  values(inputs: readonly Input[], first: number, count: number): Float64Array {
    return this.passed(inputs, null, first, count).values;
  }

  /** Partial derivatives of the SI value by one leaf, as it is given, from index `first` on. */
  partials(inputs: readonly Input[], leaf: number, first: number, count: number): Float64Array {
    return this.passed(inputs, leaf, first, count).partials;
  }

  /** Values and partial derivatives in one pass. */
  passed(
    inputs: readonly Input[],
    by: number | null,
    first: number,
    count: number,
  ): { values: Float64Array; partials: Float64Array } {
    const { steps } = this;
    const length = Math.min(blockLength, count);
    const values = new Float64Array(count);
    const partials = new Float64Array(by === null ? 0 : count);
    const v = steps.map(() => new Float64Array(length));
    const d = steps.map((_, at) => (by !== null && this.hangsOn[at][by] ? new Float64Array(length) : null));
    steps.forEach((step, at) => {
      if (step.kind === 'number') v[at].fill(step.value);
    });
    const last = steps.length - 1;
    for (let from = 0; from < count; from += length) {
      const n = Math.min(length, count - from);
      for (let at = 0; at <= last; at++) this.block(steps[at], inputs, first + from, n, v, d, at);
      values.set(n === length ? v[last] : v[last].subarray(0, n), from);
      const ends = d[last];
      if (ends !== null) partials.set(n === length ? ends : ends.subarray(0, n), from);
    }
    return { values, partials };
  }

  private block(
    step: Step,
    inputs: readonly Input[],
    first: number,
    n: number,
    v: readonly Float64Array[],
    d: readonly (Float64Array | null)[],
    at: number,
  ): void {
    const out = v[at];
    const slope = d[at];
    switch (step.kind) {
      case 'number':
        return;
      case 'leaf': {
        const { values, factor, zero } = inputs[step.leaf];
        if (typeof values === 'number') out.fill(factor * (values + zero));
        else for (let i = 0; i < n; i++) out[i] = factor * (values[first + i] + zero);
        slope?.fill(factor);
        return;
      }
      case 'negative': {
        const a = v[step.a];
        for (let i = 0; i < n; i++) out[i] = -a[i];
        const da = d[step.a];
        if (slope !== null && da !== null) for (let i = 0; i < n; i++) slope[i] = -da[i];
        return;
      }
      case 'call': {
        const { does } = step;
        const [a, b] = [v[step.a], v[step.b]];
        for (let i = 0; i < n; i++) out[i] = does.value(a[i], b[i]);
        if (slope === null) return;
        const [da, db] = [d[step.a], does.bySecond === undefined ? null : d[step.b]];
        for (let i = 0; i < n; i++) {
          let sum = da === null || da[i] === 0 ? 0 : does.byFirst(a[i], b[i]) * da[i];
          if (db !== null && db[i] !== 0 && does.bySecond !== undefined)
            sum += does.bySecond(a[i], b[i]) * db[i];
          slope[i] = sum;
        }
        return;
      }
      default:
        joined(step.kind, v[step.a], v[step.b], n, out);
        if (slope !== null) joinedSlope(step.kind, v[step.a], v[step.b], out, d[step.a], d[step.b], n, slope);
    }
  }
}

type Operation = 'sum' | 'difference' | 'product' | 'quotient' | 'power';

function joined(kind: Operation, a: Float64Array, b: Float64Array, n: number, out: Float64Array): void {
  switch (kind) {
    case 'sum':
      for (let i = 0; i < n; i++) out[i] = a[i] + b[i];
      return;
    case 'difference':
      for (let i = 0; i < n; i++) out[i] = a[i] - b[i];
      return;
    case 'product':
      for (let i = 0; i < n; i++) out[i] = a[i] * b[i];
      return;
    case 'quotient':
      for (let i = 0; i < n; i++) out[i] = a[i] / b[i];
      return;
    case 'power':
      for (let i = 0; i < n; i++) out[i] = b[i] === 2 ? a[i] * a[i] : pow(a[i], b[i]);
  }
}

function joinedSlope(
  kind: Operation,
  a: Float64Array,
  b: Float64Array,
  value: Float64Array,
  da: Float64Array | null,
  db: Float64Array | null,
  n: number,
  out: Float64Array,
): void {
  for (let i = 0; i < n; i++) {
    const [x, y] = [da === null ? 0 : da[i], db === null ? 0 : db[i]];
    let sum = 0;
    switch (kind) {
      case 'sum':
        sum = x + y;
        break;
      case 'difference':
        sum = x - y;
        break;
      case 'product':
        sum = x * b[i] + a[i] * y;
        break;
      case 'quotient':
        sum = (x - value[i] * y) / b[i];
        break;
      case 'power':
        // What does not move asks for no logarithm of what may be negative.
        if (x !== 0) sum += b[i] === 0 ? 0 : b[i] * pow(a[i], b[i] - 1) * x;
        if (y !== 0) sum += value[i] === 0 && a[i] === 0 ? 0 : value[i] * log(a[i]) * y;
    }
    out[i] = sum;
  }
}
