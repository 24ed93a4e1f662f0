import { normalRandom, uniformRandom } from '../random';
import { resultIn } from '../testing/coverage';
import { channelOf } from '../testing/sheet';
import { entryOf, regionEntry } from '../testing/truth/sheets';

// A pull that is there at once and gone at once: its impulse is its size times its length, whenever between two readings it came.
test('an area across jumps holds its truth: between which moments of two readings they were, nobody knows', () => {
  const [size, interval] = [3.7, 0.002];
  let [within, farthest] = [0, 0];
  const all = 400;
  for (let seed = 1; seed <= all; seed++) {
    const [normal, uniform] = [normalRandom(seed), uniformRandom(seed + 500)];
    const [from, until] = [0.2 + interval * uniform(), 0.27 + interval * uniform()];
    const values = Float64Array.from({ length: 250 }, (_, i) => {
      const t = i * interval;
      return (t >= from && t < until ? size : 0) + 0.01 * normal();
    });
    const channel = channelOf('F', 'N', values, interval, 's');
    const area = entryOf('area', 'q', { of: 'channel:F', against: 't', region: 'A', baseline: 'zero' });
    const { quantity } = resultIn([regionEntry('A', 'A', 0.1, 0.4), area], [channel], 'q');
    const off = Math.abs(quantity.value - size * (until - from)) / (quantity.standardUncertainty ?? 0);
    if (off < 1) within++;
    farthest = Math.max(farthest, off);
  }
  // Two even ones together reach as far as √6 times their standard deviation, and noise adds little.
  expect(within / all).toBeGreaterThan(0.58);
  expect(within / all).toBeLessThan(0.75);
  expect(farthest).toBeLessThan(3.5);
});
