import { coarseSteps, finerSteps } from './sweepSteps';

test('the first pass goes from one end to the other in even steps, downwards too', () => {
  expect(coarseSteps(10, 12, 0.5)).toEqual([10, 10.5, 11, 11.5, 12]);
  expect(coarseSteps(12, 10, 1)).toEqual([12, 11, 10]);
  expect(coarseSteps(0.1, 0.3, 0.1)).toEqual([0.1, 0.2, 0.3]);
});

test('about the largest reading it goes on in quarters, up to its neighbours and not beyond the ends', () => {
  const taken = [10, 11, 12, 13].map((at) => ({ at, value: at === 12 ? 5 : 1 }));
  expect(finerSteps(taken, 1, 0.25).steps).toEqual([11.25, 11.5, 11.75, 12.25, 12.5, 12.75]);
  const edge = [10, 11, 12].map((at) => ({ at, value: -at }));
  expect(finerSteps(edge, 1, 0.25).steps).toEqual([10.25, 10.5, 10.75]);
});

test('it ends where it would be finer than is wanted', () => {
  const taken = [10, 11, 12].map((at) => ({ at, value: at }));
  expect(finerSteps(taken, 1, 0.5).steps).toEqual([]);
  expect(finerSteps(taken, 1, 1).steps).toEqual([]);
});

test('a reading that is missing is no peak', () => {
  const taken = [10, 11, 12, 13].map((at, i) => ({ at, value: i === 0 ? NaN : -i }));
  expect(finerSteps(taken, 1, 0.25).steps.every((at) => at <= 12)).toBe(true);
});
