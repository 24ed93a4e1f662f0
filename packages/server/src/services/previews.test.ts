import { inOneUnit } from './previews';

// 1 ft = 0.3048 m exactly; 0 °C = 273.15 K.
test('small pictures of runs in other units stand over one scale, that of the newest', () => {
  const metres = { x: [0, 1], y: [0.3048, null], unit: 'm', style: 0 };
  const feet = { x: [0, 1], y: [1, 2], unit: '[ft_i]', style: 1 };
  for (const { y } of inOneUnit([metres, feet])) expect(y[0]).toBeCloseTo(1, 12);
  expect(inOneUnit([metres, feet])[0].y[1]).toBeNull();
  const [kelvin] = inOneUnit([
    { x: [0], y: [293.15], unit: 'K' },
    { x: [0], y: [20], unit: 'Cel' },
  ]);
  expect(kelvin.y[0]).toBeCloseTo(20, 9);
  // A force beside a length would say nothing, and one of before stays as it is.
  expect(inOneUnit([{ x: [0], y: [5], unit: 'N' }, metres])).toEqual([metres]);
  expect(inOneUnit([{ x: [0], y: [5] }, metres])[0].y).toEqual([5]);
});
