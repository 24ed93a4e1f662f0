import { atan2, cos, sin, sinCos, square } from '../elementary';
/** A sine that was found among readings: its frequency, amplitude, and how each reading moves both. */
export interface Tone {
  /** In cycles per unit of time. */
  frequency: number;
  amplitude: number;
  /** ∂f/∂y and ∂A/∂y by reading. */
  frequencyBy: Float64Array;
  amplitudeBy: Float64Array;
}

const mostRounds = 60;
/** Changes below this share of what changes are none. */
const settled = 1e-10;
const { hypot, PI } = Math;

/**
 * The frequency at which the spectrum of weighed readings is highest, between the frequencies that are drawn. The readings are
 * taken as a sine with an offset; what the offset and the sine's own mirror image at the negative frequency add to the peak is
 * taken off, so that few periods do not shift it. That is the weighed least-squares sine; the effects of the readings follow
 * from the stationarity of |W|² (worked out by hand; for equal weights it is the bound of D. C. Rife and R. R. Boorstyn, IEEE
 * Trans. Inf. Theory 20 (1974) 591).
 * @param times in any unit, from any beginning
 * @param weights of the window
 * @param start frequency in the main lobe of the peak
 * @param resolution how far the peak may lie from there
 * @returns null where there is no peak near the start, or the search does not settle
 */
export function toneAt(
  times: Float64Array,
  values: Float64Array,
  weights: Float64Array,
  start: number,
  resolution: number,
): Tone | null {
  const n = values.length;
  let sum = 0;
  let middle = 0;
  let offset = 0;
  for (let i = 0; i < n; i++) {
    sum += weights[i];
    middle += weights[i] * times[i];
    offset += weights[i] * values[i];
  }
  if (!(sum > 0)) return null;
  middle /= sum;
  offset /= sum;
  const plainOffset = offset;
  let omega = 2 * PI * start;
  // The sine is 2 Re(c e^{iωt}), c = real + i imaginary.
  let real = 0;
  let imaginary = 0;
  let isSettled = false;
  const both = new Float64Array(2);
  for (let round = 0; round < mostRounds && !isSettled; round++) {
    // W(ω) and its derivatives, of the readings without offset and mirror image; and what the sine adds to their mean.
    let [wr, wi, dr, di, hr, hi, mr, mi] = [0, 0, 0, 0, 0, 0, 0, 0];
    for (let i = 0; i < n; i++) {
      const t = times[i] - middle;
      sinCos(omega * t, both);
      const [s, c] = both;
      const w = weights[i];
      // y − offset − c* e^{−iωt}
      const yr = values[i] - offset - (real * c - imaginary * s);
      const yi = real * s + imaginary * c;
      const pr = w * (yr * c + yi * s);
      const pi = w * (yi * c - yr * s);
      wr += pr;
      wi += pi;
      dr += t * pi;
      di -= t * pr;
      hr -= t * t * pr;
      hi -= t * t * pi;
      mr += w * c;
      mi += w * s;
    }
    const gradient = wr * dr + wi * di;
    const curvature = dr * dr + di * di + wr * hr + wi * hi;
    const wanted = curvature < 0 ? -gradient / curvature : 0;
    const limit = PI * resolution;
    const change = Math.max(-limit, Math.min(limit, wanted));
    const [nextReal, nextImaginary] = [wr / sum, wi / sum];
    // A frequency that is changed turns the phases of both ends; the middle stays.
    isSettled =
      Math.abs(change) < settled * omega &&
      hypot(nextReal - real, nextImaginary - imaginary) <= settled * hypot(real, imaginary);
    real = nextReal;
    imaginary = nextImaginary;
    omega += change;
    offset = plainOffset - (2 * (real * mr - imaginary * mi)) / sum;
    if (Math.abs(omega / (2 * PI) - start) > resolution) return null;
  }
  const amplitude = 2 * hypot(real, imaginary);
  if (!isSettled || !(amplitude > 0)) return null;
  const phase = atan2(imaginary, real);
  const frequencyBy = new Float64Array(n);
  const amplitudeBy = new Float64Array(n);
  let spread = 0;
  for (let i = 0; i < n; i++) spread += weights[i] * square(times[i] - middle);
  for (let i = 0; i < n; i++) {
    const t = times[i] - middle;
    frequencyBy[i] = (-2 * weights[i] * t * sin(omega * t + phase)) / (amplitude * spread * 2 * PI);
    amplitudeBy[i] = (2 * weights[i] * cos(omega * t + phase)) / sum;
  }
  return { frequency: omega / (2 * PI), amplitude, frequencyBy, amplitudeBy };
}
