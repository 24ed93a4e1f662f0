import { resultIn } from '../testing/coverage';
import { channelOf, constantEntry } from '../testing/sheet';
import { type Entry } from './entries';

// By hand: 4 π² · 0.6 m / (1.554 s)² = 9.8086 m/s².
test.each(['pi', 'π'])('%s in a formula is the number, in its working too', (pi) => {
  const g: Entry = {
    kind: 'calculation',
    id: 'g',
    name: 'g',
    formula: { text: `4 ${pi}^2 l / T^2`, names: {} },
    unit: '',
  };
  const entries = [constantEntry('l', 0.6, 0.001, 'm'), constantEntry('T', 1.554, 0.001, 's'), g];
  const { quantity } = resultIn(entries, [channelOf('x', 'm', new Float64Array(3), 0.1)], 'g');
  expect(quantity.value).toBeCloseTo(9.8086, 3);
});
