import { blockLength, breaksIn } from './breaks';
import { type Sampling } from './sampling';

/** Standard deviation of readings' own noise, with the degrees of freedom it is known by. */
export interface NoiseEstimate {
  standardDeviation: number;
  degreesOfFreedom: number;
}

/** Orders of differences tried, lowest first: the smooth motion that a low order leaves standing, a higher one takes away. */
const orders = [3, 6, 12] as const;
/** Relative variance of the estimate, times the number of differences: 2 C(4k,2k) / C(2k,k)² for order k. */
const spreadOf: Record<(typeof orders)[number], number> = { 3: 4.62, 6: 6.33, 12: 8.83 };
const fewestDifferences = 4;
/** Irregular times cost a set of weights for every window; so many windows tell the noise well enough. */
const mostIrregularWindows = 4096;

/**
 * The readings' own noise, from differences of order k that a smooth motion hardly touches: σ² = mean of (Σ w y)² with
 * weights w orthogonal to all polynomials below degree k and Σ w² = 1. The lowest order is taken unless a higher one says
 * distinctly less, which means that the motion itself, few readings a swing, still stands in the lower one. Missing readings
 * break the differences, and so does a bounce, of which they would tell instead. Readings that are only numbered need not follow
 * each other smoothly, so their differences tell nothing. Sums are kept running, so that any interval is answered at once.
 * Source: Gasser, Sroka and Jennen-Steinmetz, Biometrika 73 (1986) 625, for difference-based variance; the choice among
 * orders is ours and checked by simulation.
 */
export class NoiseLevel {
  private known = 0;
  /** The last readings of third differences across breaks, in order, and the sums of their squares up to each. */
  private readonly across = { at: [] as number[], squares: [0] };
  private readonly sums = orders.map(() => ({ squares: new Float64Array(0), counts: new Int32Array(0) }));

  /**
   * @param readings the readings so far; asked anew each time, as they may grow
   * @param announced standard deviation of a still reading, as the sensor's maker says, or null
   * @param inTime whether the readings were taken one after the other in time, not only numbered
   */
  constructor(
    private readonly readings: () => { sampling: Sampling; values: Float64Array },
    private readonly announced: number | null,
    private readonly inTime = true,
  ) {}

  /** The noise of the readings from `first` up to `end`; NaN where nothing tells it. */
  between(first: number, end: number): NoiseEstimate {
    if (this.inTime) this.learn();
    const to = Math.min(end, this.known);
    let chosen: { variance: number; order: number; count: number } | null = null;
    orders.forEach((order, place) => {
      const { squares, counts } = this.sums[place];
      // A difference stands at its last reading.
      const from = Math.min(Math.max(first, 0) + order, to);
      if (to <= from) return;
      const count = counts[to] - counts[from];
      if (count < fewestDifferences) return;
      const variance = Math.max((squares[to] - squares[from]) / count, 0);
      if (chosen === null) chosen = { variance, order: place, count };
      else {
        // Few differences of a high order may be small by chance.
        const spread = spreadOf[order] / count;
        const doubt = Math.min(0.7 * Math.sqrt(spread) * (1 + spread), 0.95);
        if (variance < chosen.variance * (1 - doubt)) chosen = { variance, order: place, count };
      }
    });
    const found = (chosen ?? this.withBreaks(first, to)) as {
      variance: number;
      order: number;
      count: number;
    } | null;
    if (found === null)
      return this.announced === null
        ? { standardDeviation: NaN, degreesOfFreedom: 0 }
        : { standardDeviation: this.announced, degreesOfFreedom: Infinity };
    return {
      standardDeviation: Math.sqrt(found.variance),
      degreesOfFreedom: (2 * found.count) / spreadOf[orders[found.order]],
    };
  }

  /** How restless the readings are: their noise, and the breaks among them too. */
  restlessness(first: number, end: number): number {
    const { standardDeviation } = this.between(first, end);
    const all = this.withBreaks(first, Math.min(end, this.known));
    return all === null ? standardDeviation : Math.max(standardDeviation, Math.sqrt(all.variance));
  }

  /** Whether the readings break between two of them. */
  hasBreak(first: number, end: number): boolean {
    if (this.inTime) this.learn();
    const { at } = this.across;
    return firstFrom(at, first) < firstFrom(at, end);
  }

  /**
   * The sum of squares of the jumps at the breaks between two readings, as if all of each were one jump. Where between its readings a jump
   * was, nobody can tell.
   */
  jumpsIn(first: number, end: number): number {
    if (this.inTime) this.learn();
    const { at, squares } = this.across;
    // A jump between two readings stands in the third differences of the second of them and of the two after it, as 1, −2, 1.
    const [begin, past] = [first + 1, end + 2].map((index) => firstFrom(at, index));
    return ((squares[past] - squares[begin]) * thirdSquared) / ofJumpSquared;
  }

  /** Third differences across breaks counted in; null where there are too few. */
  private withBreaks(first: number, to: number): { variance: number; order: number; count: number } | null {
    const [{ squares, counts }] = this.sums;
    const from = Math.min(Math.max(first, 0) + orders[0], to);
    if (to <= from) return null;
    const { at, squares: ofBreaks } = this.across;
    const [begin, past] = [from, to].map((index) => firstFrom(at, index));
    const count = counts[to] - counts[from] + past - begin;
    if (count < fewestDifferences) return null;
    const sum = squares[to] - squares[from] + ofBreaks[past] - ofBreaks[begin];
    return { variance: Math.max(sum / count, 0), order: 0, count };
  }

  /** Goes on with the sums where they ended. */
  private learn(): void {
    const { sampling, values } = this.readings();
    const n = values.length;
    if (n <= this.known) return;
    const isRegular = sampling.kind === 'regular';
    // What a block that has grown tells of breaks reaches back into the one before it.
    const from = isRegular
      ? Math.max((Math.floor(this.known / blockLength) - 1) * blockLength, 0)
      : this.known;
    const breaks = isRegular ? breaksFrom(values, from, n) : null;
    const { across } = this;
    const kept = firstFrom(across.at, from);
    across.at.length = kept;
    across.squares.length = kept + 1;
    orders.forEach((order, place) => {
      const room = this.sums[place];
      if (room.squares.length < n + 1) {
        const squares = new Float64Array(Math.max(n + 1, 2 * room.squares.length));
        const counts = new Int32Array(squares.length);
        squares.set(room.squares);
        counts.set(room.counts);
        this.sums[place] = { squares, counts };
      }
      const { squares, counts } = this.sums[place];
      if (breaks !== null)
        addRegular(values, order, from, n, { squares, counts, breaks, across: place === 0 ? across : null });
      else if (sampling.kind !== 'regular')
        addIrregular(sampling.times, values, order, this.known, n, squares, counts);
    });
    this.known = n;
  }
}

/** Sums of squares of the weights of a third difference, 1, −3, 3, −1, and of what a jump of 1 leaves in three of them, 1, −2, 1. */
const [thirdSquared, ofJumpSquared] = [20, 6];

/** The place of the first of some numbers in order that is not below a limit. */
function firstFrom(numbers: readonly number[], limit: number): number {
  let [low, high] = [0, numbers.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (numbers[middle] < limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Weights of the difference of an order, whose squares sum up to 1. */
function differenceWeights(order: number): Float64Array {
  const weights = new Float64Array(order + 1);
  let coefficient = 1;
  for (let j = 0; j <= order; j++) {
    weights[j] = (j % 2 === 0 ? 1 : -1) * coefficient;
    coefficient = (coefficient * (order - j)) / (j + 1);
  }
  const norm = Math.sqrt(weights.reduce((sum, weight) => sum + weight * weight, 0));
  return weights.map((weight) => weight / norm);
}

/** The difference whose last reading is `last`; NaN where one is missing. */
function differenceAt(values: Float64Array, last: number, weights: Float64Array): number {
  const first = last + 1 - weights.length;
  if (first < 0) return NaN;
  let sum = 0;
  for (let j = 0; j < weights.length; j++) sum += weights[j] * values[first + j];
  return sum;
}

/** The third differences in which a break begins to stand, from a begin of a block on; those before it too that still reach there. */
function breaksFrom(values: Float64Array, from: number, to: number): { start: number; begins: Uint8Array } {
  const start = Math.max(from - blockLength, 0);
  const weights = differenceWeights(3);
  const third = Float64Array.from({ length: to - start }, (_, i) => differenceAt(values, start + i, weights));
  return { start, begins: breaksIn(third) };
}

function addRegular(
  values: Float64Array,
  order: number,
  from: number,
  to: number,
  {
    squares,
    counts,
    breaks,
    across,
  }: {
    squares: Float64Array;
    counts: Int32Array;
    breaks: { start: number; begins: Uint8Array };
    across: { at: number[]; squares: number[] } | null;
  },
): void {
  const weights = differenceWeights(order);
  /** A break that begins to stand in a third difference is in `order` differences of this order, and a little in those beside. */
  let past = from;
  for (let i = Math.max(from - order - 1, breaks.start); i < to; i++) {
    if (i + 1 < to && breaks.begins[i + 1 - breaks.start] === 1) past = i + 2 + order;
    if (i < from) continue;
    const difference = differenceAt(values, i, weights);
    const isAcross = i < past;
    const missing = isAcross || Number.isNaN(difference);
    if (isAcross && across !== null && !Number.isNaN(difference)) {
      across.at.push(i);
      across.squares.push(across.squares[across.squares.length - 1] + difference * difference);
    }
    squares[i + 1] = squares[i] + (missing ? 0 : difference * difference);
    counts[i + 1] = counts[i] + (missing ? 0 : 1);
  }
}

function addIrregular(
  times: Float64Array,
  values: Float64Array,
  order: number,
  from: number,
  to: number,
  squares: Float64Array,
  counts: Int32Array,
): void {
  const stride = Math.max(1, Math.ceil((to - from) / mostIrregularWindows));
  for (let i = from; i < to; i++) {
    let variance = NaN;
    if (i >= order && (i - from) % stride === 0)
      variance = dividedDifference(times, values, i - order, order);
    const missing = variance !== variance;
    squares[i + 1] = squares[i] + (missing ? 0 : variance);
    counts[i + 1] = counts[i] + (missing ? 0 : 1);
  }
}

/** (Σ w y)² / Σ w² with the weights of the divided difference of order k at these times. */
function dividedDifference(times: Float64Array, values: Float64Array, first: number, order: number): number {
  const scale = times[first + order] - times[first];
  let sum = 0;
  let norm = 0;
  for (let j = 0; j <= order; j++) {
    let product = 1;
    for (let m = 0; m <= order; m++) if (m !== j) product *= (times[first + j] - times[first + m]) / scale;
    sum += values[first + j] / product;
    norm += 1 / (product * product);
  }
  return (sum * sum) / norm;
}
