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
 * break the differences. Readings that are only numbered need not follow each other smoothly, so their differences tell nothing. Sums are kept running, so that any interval is answered at once.
 * Source: Gasser, Sroka and Jennen-Steinmetz, Biometrika 73 (1986) 625, for difference-based variance; the choice among
 * orders is ours and checked by simulation.
 */
export class NoiseLevel {
  private known = 0;
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
        const doubt = Math.min(0.7 * Math.sqrt(spreadOf[order] / count), 0.8);
        if (variance < chosen.variance * (1 - doubt)) chosen = { variance, order: place, count };
      }
    });
    const found = chosen as { variance: number; order: number; count: number } | null;
    if (found === null)
      return this.announced === null
        ? { standardDeviation: NaN, degreesOfFreedom: 0 }
        : { standardDeviation: this.announced, degreesOfFreedom: Infinity };
    return {
      standardDeviation: Math.sqrt(found.variance),
      degreesOfFreedom: (2 * found.count) / spreadOf[orders[found.order]],
    };
  }

  /** Goes on with the sums where they ended. */
  private learn(): void {
    const { sampling, values } = this.readings();
    const n = values.length;
    if (n <= this.known) return;
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
      if (sampling.kind === 'regular') addRegular(values, order, this.known, n, squares, counts);
      else addIrregular(sampling.times, values, order, this.known, n, squares, counts);
    });
    this.known = n;
  }
}

function addRegular(
  values: Float64Array,
  order: number,
  from: number,
  to: number,
  squares: Float64Array,
  counts: Int32Array,
): void {
  const weights = new Float64Array(order + 1);
  let coefficient = 1;
  let norm = 0;
  for (let j = 0; j <= order; j++) {
    weights[j] = (j % 2 === 0 ? 1 : -1) * coefficient;
    norm += coefficient * coefficient;
    coefficient = (coefficient * (order - j)) / (j + 1);
  }
  for (let i = from; i < to; i++) {
    let sum = NaN;
    if (i >= order) {
      sum = 0;
      for (let j = 0; j <= order; j++) sum += weights[j] * values[i - order + j];
    }
    const missing = sum !== sum;
    squares[i + 1] = squares[i] + (missing ? 0 : (sum * sum) / norm);
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
