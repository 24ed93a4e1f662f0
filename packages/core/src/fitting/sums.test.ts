import { normalRandom } from '../random';
import { GramSum } from './gram';
import { leastSquares } from './levenbergMarquardt';
import { swingSums } from './models/swingSums';

/** RᵀR, entry by entry, as it is defined. */
const products = (columns: readonly Float64Array[]) =>
  columns.map((a) => columns.map((b) => a.reduce((sum, value, i) => sum + value * b[i], 0)));
const fromTriangle = (r: number[][]) =>
  r.map((_, i) => r.map((_row, j) => r.reduce((sum, row) => sum + row[i] * row[j], 0)));

test('the sums of any number of columns, five among them, are those of their products', () => {
  const normal = normalRandom(8);
  for (const m of [3, 4, 5, 6])
    for (const rows of [7, 512, 509]) {
      const columns = Array.from({ length: m }, () => Float64Array.from({ length: rows }, () => normal()));
      const gram = new GramSum(m);
      gram.add(columns, rows);
      const found = fromTriangle(gram.triangle(m) ?? []);
      products(columns).forEach((row, i) =>
        row.forEach((value, j) => expect(found[i][j]).toBeCloseTo(value, 9)),
      );
    }
});

test('the sums of a sine through regular points are those of its columns and of what is left over', () => {
  const normal = normalRandom(9);
  const n = 1000;
  const step = 2 / (n - 1);
  const u = Float64Array.from({ length: n }, (_, i) => -1 + i * step);
  for (const w of [2.1, 47, 800]) {
    const y = u.map((at) => 0.3 * Math.sin(w * at) + 0.1 + 0.05 * normal());
    const [a, b, c] = [0.2, -0.1, 0.08];
    const { gram, sum } = swingSums(u, y, step)([a, b, c, w]);
    const columns = [
      u.map((at) => Math.sin(w * at)),
      u.map((at) => Math.cos(w * at)),
      u.map(() => 1),
      u.map((at) => at * (a * Math.cos(w * at) - b * Math.sin(w * at))),
      u.map((at, i) => y[i] - (a * Math.sin(w * at) + b * Math.cos(w * at) + c)),
    ];
    const wanted = products(columns);
    expect(sum).toBeCloseTo(wanted[4][4], 9);
    const found = fromTriangle(gram.triangle(4) ?? []);
    wanted.forEach((row, i) => row.forEach((value, j) => expect(found[i][j]).toBeCloseTo(value, 8)));
  }
});

test('a value that is no finite number is named, wherever it stands', () => {
  const line = (parameters: readonly number[], _first: number, out: Float64Array) => out.fill(parameters[0]);
  for (const place of [0, 1, 6])
    for (const wrong of [NaN, Infinity, -Infinity]) {
      const y = new Float64Array(7).fill(1);
      y[place] = wrong;
      expect(() => leastSquares(line, y, [1])).toThrow(`Reading ${place + 1} is ${wrong}`);
    }
});
