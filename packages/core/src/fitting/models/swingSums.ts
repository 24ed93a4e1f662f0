import { cos, sin } from '../../elementary';
import { GramSum } from '../gram';
import { type SolverSums } from '../levenbergMarquardt';

/** The angle is worked out anew so often while it is turned on from reading to reading. */
export const turnLength = 64;

/**
 * What a step of the solver needs of a sine a sin ωu + b cos ωu + c through regular points, in one pass that writes nothing
 * down: the sums of its four partial derivatives and the residuals, each with each.
 * @param step distance of the points
 */
export const swingSums =
  (u: Float64Array, y: Float64Array, step: number): SolverSums =>
  ([a, b, c, w]) => {
    const n = y.length;
    const turnS = sin(w * step);
    const turnC = cos(w * step);
    let [ss, sk, s1, sg, sr] = [0, 0, 0, 0, 0];
    let [k1, kg, kr] = [0, 0, 0];
    let [g1, r1, gg, gr, rr] = [0, 0, 0, 0, 0];
    for (let start = 0; start < n; start += turnLength) {
      const end = Math.min(start + turnLength, n);
      let s = sin(w * u[start]);
      let k = cos(w * u[start]);
      for (let i = start; i < end; i++) {
        const r = y[i] - (a * s + b * k + c);
        const g = u[i] * (a * k - b * s);
        ss += s * s;
        sk += s * k;
        s1 += s;
        sg += s * g;
        sr += s * r;
        k1 += k;
        kg += k * g;
        kr += k * r;
        g1 += g;
        r1 += r;
        gg += g * g;
        gr += g * r;
        rr += r * r;
        const turned = s * turnC + k * turnS;
        k = k * turnC - s * turnS;
        s = turned;
      }
    }
    // sin² + cos² = 1 at every point.
    const kk = n - ss;
    return {
      sum: rr,
      gram: GramSum.of([
        [ss, sk, s1, sg, sr],
        [sk, kk, k1, kg, kr],
        [s1, k1, n, g1, r1],
        [sg, kg, g1, gg, gr],
        [sr, kr, r1, gr, rr],
      ]),
    };
  };
