import { describe } from '../statistics/describe';

/** What one spot reading says. */
export interface SpotReading {
  value: number;
  /** Standard uncertainty of the value; null where nothing tells it. */
  standardUncertainty: number | null;
  /** Standard deviation of the readings, and how many they were. */
  spread: number;
  count: number;
  /** What about the readings is not steady, as a sentence part: "drifts by 0.12"; null where nothing is. */
  unsteady: { kind: 'drifts' | 'moves' | 'grows'; by: number } | null;
}

export interface SpotReadings {
  /** Missing ones are NaN. */
  values: Float64Array;
  /** Seconds from one to the next. */
  interval: number;
  /** Standard deviation of a still reading as the sensor says it, and the smallest step; 0 where there is none. */
  noise: number;
  resolution: number;
}

/** A drift must be so many of its own standard deviations, and so many of the sensor's, to be one. Common practice, no source. */
const driftDeviations = 4;
const driftNoises = 2;
/** A still target scatters by the sensor's own noise; five times that is motion. Common practice, no source. */
const motionNoises = 5;
/** Of fewer readings the scatter says little by itself; then it is taken for no less than the sensor's own. Common practice, no source. */
const fewReadings = 10;
/** Standard deviation of a value that is known to within a step: the step over √12 (JCGM 100:2008, 4.3.7). */
const shareOfStep = 1 / Math.sqrt(12);

/**
 * The mean of an interval of readings with its standard uncertainty: s/√n of the readings (JCGM 100:2008, 4.2.3) and the
 * resolution of the sensor, which averaging does not take away where it is coarser than the noise.
 * @throws Refusal where no reading is there
 */
export function spotMean(readings: SpotReadings): SpotReading {
  const { values, noise, resolution } = readings;
  const { count, mean, standardDeviation } = describe(values);
  const spread = count > 1 ? standardDeviation : 0;
  const scatter = count < fewReadings ? Math.max(spread, noise) : spread;
  const own = scatter / Math.sqrt(count);
  const uncertainty = Math.hypot(own, spread < resolution ? resolution * shareOfStep : 0);
  return {
    value: mean,
    standardUncertainty: uncertainty > 0 ? uncertainty : null,
    spread,
    count,
    unsteady: unsteadinessOf(readings, spread),
  };
}

function unsteadinessOf(
  { values, interval, noise, resolution }: SpotReadings,
  spread: number,
): SpotReading['unsteady'] {
  const own = Math.max(noise, resolution);
  const { slope, slopeUncertainty } = lineThrough(values, interval);
  const reach = interval * (values.length - 1);
  const drift = Math.abs(slope * reach);
  if (drift > driftDeviations * slopeUncertainty * reach && drift > driftNoises * own)
    return { kind: 'drifts', by: drift };
  return own > 0 && spread > motionNoises * own ? { kind: 'moves', by: spread } : null;
}

/** Slope of the least-squares line through the readings that are there. */
function lineThrough(values: Float64Array, interval: number): { slope: number; slopeUncertainty: number } {
  let n = 0;
  let [x, y] = [0, 0];
  values.forEach((value, i) => {
    if (Number.isNaN(value)) return;
    n++;
    x += i * interval;
    y += value;
  });
  if (n < 3) return { slope: 0, slopeUncertainty: Infinity };
  [x, y] = [x / n, y / n];
  let [xx, xy, yy] = [0, 0, 0];
  values.forEach((value, i) => {
    if (Number.isNaN(value)) return;
    const [dx, dy] = [i * interval - x, value - y];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  });
  const slope = xy / xx;
  const left = Math.max(yy - slope * xy, 0);
  return { slope, slopeUncertainty: Math.sqrt(left / (n - 2) / xx) };
}
