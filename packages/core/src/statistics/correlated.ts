import { log, log2, square } from '../elementary';
/**
 * Whether readings rest (but for noise, which may wander) or follow a smooth motion, and by how many independent readings a mean of
 * them counts.
 */

/** Differences at a doubled distance grow by 2⁶ where a smooth motion makes them, and by 2 where wandering noise does. */
const smoothGrowth = 2.5;
/** A level of differences that is exceeded by less than this share is the same. */
const sameLevel = 1.3;
/** Noise wanders where its differences grow by so much over all distances. */
const clearGrowth = 2;
/** A random walk scatters by 5.6 times its differences at a tenth of its length, and rarely by so many times. */
const farAbove = 40;
const fewestReadings = 16;
/** So many differences at each distance tell their size. */
const enoughDifferences = 2000;

/** Mean squares of third differences at distances 1, 2, 4 …, each that of the noise where it is white. */
function levelsOf(values: Float64Array): number[] {
  const n = values.length;
  const levels: number[] = [];
  const stride = Math.max(Math.floor(n / enoughDifferences), 1);
  for (let m = 1; m === 1 || m <= n / 10; m *= 2) {
    let sum = 0;
    let count = 0;
    for (let i = 3 * m; i < n; i += stride) {
      const difference = values[i] - 3 * values[i - m] + 3 * values[i - 2 * m] - values[i - 3 * m];
      sum += difference * difference;
      count++;
    }
    if (count === 0) break;
    levels.push(sum / count / 20);
  }
  return levels;
}

/**
 * Whether readings at equal intervals follow a motion. White noise has third differences of one size at all distances m; those of
 * wandering noise grow no faster than m, those of a smooth motion as m⁶ (order 3; growth rates by Taylor’s theorem and for a random
 * walk). The bounds between them are ours and checked by simulation.
 */
export function isMotion(values: Float64Array): boolean {
  const n = values.length;
  if (n < fewestReadings) return false;
  const levels = levelsOf(values);
  const [first] = levels;
  let top = first;
  for (let k = 1; k < levels.length; k++) {
    const growth = log2(levels[k] / levels[k - 1]);
    // Of little growth in all nothing is said: it may be chance.
    if (growth > smoothGrowth && levels[k] > sameLevel * first) return true;
    top = Math.max(top, levels[k]);
  }
  const { variance } = momentsOf(values);
  if (variance <= sameLevel * top) return false;
  return top < clearGrowth * first || variance > farAbove * top;
}

function momentsOf(values: Float64Array): { mean: number; variance: number } {
  const n = values.length;
  let mean = 0;
  for (let i = 0; i < n; i++) mean += (values[i] - values[0]) / n;
  mean += values[0];
  let squares = 0;
  for (let i = 0; i < n; i++) squares += square(values[i] - mean);
  return { mean, variance: squares / (n - 1) };
}

const mostValues = 8192;
const mostOrder = 24;
/** So many orders that bring nothing end the search. */
const patience = 5;

/**
 * How many of neighbouring readings count as one, where they scatter about a constant: τ = n var(mean)/var(reading). Readings are
 * taken as an autoregression whose order is chosen by AICc (Hurvich and Tsai, Biometrika 76 (1989) 297) and whose coefficients are
 * found by Burg’s method (J. P. Burg, Maximum entropy spectral analysis, 1975); the variance of their mean is then that of the
 * innovations over (1 − Σφ)² n. The mean itself takes (1 + 3 Σφ)/n off Σφ, which is put back (F. H. C. Marriott and J. A. Pope,
 * Biometrika 41 (1954) 390).
 * @param values readings at equal intervals, about a constant
 * @returns the variance of their mean, how many independent readings would have it, and the degrees of freedom by which it is known
 */
export function meanOfCorrelated(values: Float64Array): {
  variance: number;
  independent: number;
  degreesOfFreedom: number;
} {
  const size = Math.ceil(values.length / mostValues);
  const some = size === 1 ? values : blockMeans(values, size);
  const n = some.length;
  const { mean, variance: spread } = momentsOf(some);
  if (!(spread > 0)) return { variance: 0, independent: n, degreesOfFreedom: n - 1 };
  const { sum, innovation, order } = autoregression(some.map((value) => value - mean));
  const free = Math.max(n - 1 - order, 1);
  const variance0 = (innovation * n) / free;
  if (order === 0) return { variance: variance0 / n, independent: n, degreesOfFreedom: n - 1 };
  const gathered = Math.min(sum + (1 + 3 * sum) / n, 1 - 1 / n);
  const variance = variance0 / square(1 - gathered) / n;
  // What the readings would scatter by, had their own mean not been taken off.
  const whole = spread + variance;
  const independent = whole / variance;
  return {
    variance,
    independent,
    // By the variance of Σφ alone, (1 − (Σφ)²)/n, it would be half of them; the correction above narrows it. Checked by simulation.
    degreesOfFreedom: Math.max(Math.min(0.8 * independent, n - 1), 1),
  };
}

/** An autoregression by Burg’s method, of the order that AICc chooses: sum of its coefficients and variance of its innovations. */
function autoregression(values: Float64Array): { sum: number; innovation: number; order: number } {
  const n = values.length;
  let forward = Float64Array.from(values);
  let backward = Float64Array.from(values);
  let error = values.reduce((sum, value) => sum + value * value, 0) / n;
  let phi: number[] = [];
  const aicc = (variance: number, k: number) =>
    n - k - 2 > 0 ? n * log(variance) + (2 * (k + 1) * n) / (n - k - 2) : Infinity;
  let best = { sum: 0, innovation: error, order: 0, aicc: aicc(error, 0) };
  const most = Math.min(mostOrder, Math.floor(n / 4));
  for (let m = 1; m <= most; m++) {
    let [product, squares] = [0, 0];
    for (let i = m; i < n; i++) {
      product += forward[i] * backward[i - 1];
      squares += square(forward[i]) + square(backward[i - 1]);
    }
    if (!(squares > 0) || m > best.order + patience) break;
    const reflection = (2 * product) / squares;
    phi = [...phi.map((value, k) => value - reflection * phi[m - 2 - k]), reflection];
    error *= 1 - reflection * reflection;
    if (!(error > 0)) break;
    const criterion = aicc(error, m);
    if (criterion < best.aicc)
      best = {
        sum: phi.reduce((sum, value) => sum + value, 0),
        innovation: error,
        order: m,
        aicc: criterion,
      };
    const [f, b] = [new Float64Array(n), new Float64Array(n)];
    for (let i = m; i < n; i++) {
      f[i] = forward[i] - reflection * backward[i - 1];
      b[i] = backward[i - 1] - reflection * forward[i];
    }
    [forward, backward] = [f, b];
  }
  return best;
}

function blockMeans(values: Float64Array, size: number): Float64Array {
  const blocks = Math.floor(values.length / size);
  return Float64Array.from({ length: blocks }, (_, b) => {
    let sum = 0;
    for (let i = b * size; i < (b + 1) * size; i++) sum += values[i];
    return sum / size;
  });
}
