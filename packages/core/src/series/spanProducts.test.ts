import { uniformRandom } from '../random';
import { productsOfSpans } from './spanProducts';
import { type WeightSpan, dotOfSpans } from './noisePath';

/** Every two of them, one after the other. */
const oneByOne = (spans: readonly WeightSpan[]): number[] =>
  spans.flatMap((one, i) => spans.slice(0, i + 1).map((other) => dotOfSpans(one, other)));

test.each([1, 2, 3, 4, 5, 9, 23])('the products of every two of %i intervals, wherever they lie', (count) => {
  const uniform = uniformRandom(count);
  const spans = Array.from({ length: count }, (): WeightSpan => {
    const weights = Float64Array.from(
      { length: Math.floor(2000 * uniform() * uniform()) },
      () => uniform() - 0.5,
    );
    return { first: Math.floor(3000 * uniform()) - 200, weights };
  });
  const products = productsOfSpans(spans);
  const expected = oneByOne(spans);
  expect(products).toHaveLength(expected.length);
  expected.forEach((product, i) => expect(products[i]).toBeCloseTo(product, 11));
});

test('of none, and of empty ones', () => {
  expect(productsOfSpans([])).toHaveLength(0);
  const empty = { first: 7, weights: new Float64Array(0) };
  const some = { first: 5, weights: Float64Array.of(1, 2, 3) };
  expect([...productsOfSpans([empty, some])]).toEqual([0, 0, 14]);
});

test('what is no number stays none, and only where it takes part', () => {
  const gone = { first: 0, weights: Float64Array.of(1, NaN) };
  const beside = { first: 0, weights: Float64Array.of(2) };
  expect([...productsOfSpans([gone, beside])]).toEqual([NaN, 2, 4]);
});
