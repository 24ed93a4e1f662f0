import { pow } from '../elementary';
/**
 * Weights w with Σ wⱼ yⱼ = the `order`-th derivative at `target` of the least-squares polynomial of `degree` through the
 * points (tⱼ, yⱼ). Built on polynomials orthogonal over the very points (Forsythe, J. SIAM 5 (1957) 74), so that it serves
 * regular windows, their ends, irregular times and windows with missing readings alike; on a regular window it gives the
 * weights of Savitzky and Golay (Anal. Chem. 36 (1964) 1627).
 * @param times abscissas of the window, at least degree + 1 different ones
 * @throws RangeError with too few points
 */
export function localPolynomialWeights(
  times: ArrayLike<number>,
  target: number,
  degree: number,
  order: number,
): Float64Array {
  const n = times.length;
  if (n < degree + 1)
    throw new RangeError(`a polynomial of degree ${degree} needs ${degree + 1} points, got ${n}`);
  // Centred and scaled to about −1 … 1: high powers of raw times would lose digits.
  const middle = (times[0] + times[n - 1]) / 2;
  const scale = (times[n - 1] - times[0]) / 2 || 1;
  const t = new Float64Array(n);
  for (let i = 0; i < n; i++) t[i] = (times[i] - middle) / scale;
  const at = (target - middle) / scale;

  const weights = new Float64Array(n);
  let previous = new Float64Array(n);
  let current = new Float64Array(n).fill(1);
  // Values of p, p′, p″ … at the target, for the last two polynomials.
  let previousAt = new Float64Array(order + 1);
  let currentAt = new Float64Array(order + 1);
  currentAt[0] = 1;
  let previousNorm = 1;
  for (let k = 0; k <= degree; k++) {
    let norm = 0;
    let moment = 0;
    for (let j = 0; j < n; j++) {
      norm += current[j] * current[j];
      moment += t[j] * current[j] * current[j];
    }
    const factor = currentAt[order] / norm;
    for (let j = 0; j < n; j++) weights[j] += factor * current[j];
    if (k === degree) break;
    const alpha = moment / norm;
    const beta = k === 0 ? 0 : norm / previousNorm;
    const next = new Float64Array(n);
    for (let j = 0; j < n; j++) next[j] = (t[j] - alpha) * current[j] - beta * previous[j];
    const nextAt = new Float64Array(order + 1);
    for (let s = 0; s <= order; s++)
      nextAt[s] = (at - alpha) * currentAt[s] + (s > 0 ? s * currentAt[s - 1] : 0) - beta * previousAt[s];
    previous = current;
    current = next;
    previousAt = currentAt;
    currentAt = nextAt;
    previousNorm = norm;
  }
  const unscale = pow(scale, -order);
  for (let j = 0; j < n; j++) weights[j] *= unscale;
  return weights;
}
