import { Refusal } from '../refusal';

export interface Description {
  count: number;
  mean: number;
  /** Sample standard deviation, n − 1 in the denominator; NaN for one value. */
  standardDeviation: number;
  minimum: number;
  maximum: number;
  indexOfMinimum: number;
  indexOfMaximum: number;
}

/**
 * Count, mean, standard deviation and extremes of the values from `first` up to `end`, missing values left out. Two passes,
 * with the corrected sum of squares of Chan, Golub and LeVeque (American Statistician 37 (1983) 242).
 * @throws Refusal where no value is there
 */
export function describe(values: Float64Array, first = 0, end = values.length): Description {
  let count = 0;
  let sum = 0;
  let indexOfMinimum = -1;
  let indexOfMaximum = -1;
  for (let i = first; i < end; i++) {
    const value = values[i];
    if (Number.isNaN(value)) continue;
    count++;
    sum += value;
    if (indexOfMinimum < 0 || value < values[indexOfMinimum]) indexOfMinimum = i;
    if (indexOfMaximum < 0 || value > values[indexOfMaximum]) indexOfMaximum = i;
  }
  if (count === 0) throw new Refusal('There is no reading in this region. Move it to where the trace is.');
  const rough = sum / count;
  let squares = 0;
  let rest = 0;
  for (let i = first; i < end; i++) {
    const value = values[i];
    if (Number.isNaN(value)) continue;
    const deviation = value - rough;
    squares += deviation * deviation;
    rest += deviation;
  }
  const variance = (squares - (rest * rest) / count) / (count - 1);
  return {
    count,
    mean: rough + rest / count,
    standardDeviation: count > 1 ? Math.sqrt(Math.max(variance, 0)) : NaN,
    minimum: values[indexOfMinimum],
    maximum: values[indexOfMaximum],
    indexOfMinimum,
    indexOfMaximum,
  };
}

/** The median of values that are all there; of an even number of them the mean of the two in the middle. */
export function medianOf(values: Float64Array): number {
  const order = values.slice();
  const half = order.length >> 1;
  const upper = smallestBut(order, half);
  if (order.length % 2 === 1) return upper;
  let lower = -Infinity;
  for (let i = 0; i < half; i++) if (order[i] > lower) lower = order[i];
  return (lower + upper) / 2;
}

/**
 * The value that `place` others are not greater than; brings it there, and those before it are not greater. Quickselect (Hoare,
 * Communications of the ACM 4 (1961) 321) about the median of three, which goes through n readings a few times where sorting
 * goes through them log n times.
 */
function smallestBut(values: Float64Array, place: number): number {
  let [low, high] = [0, values.length - 1];
  while (high > low) {
    const middle = (low + high) >> 1;
    const [a, b, c] = [values[low], values[middle], values[high]];
    const pivot = Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
    let i = low;
    let j = high;
    while (i <= j) {
      while (values[i] < pivot) i++;
      while (values[j] > pivot) j--;
      if (i > j) break;
      const kept = values[i];
      values[i++] = values[j];
      values[j--] = kept;
    }
    if (place <= j) high = j;
    else if (place >= i) low = i;
    else break;
  }
  return values[place];
}
