import { InSight } from './inSight';
import { rememberedLast } from '../ui/rememberedLast';

test('what several show is sought once, and no longer when the last of them is gone', () => {
  const inSight = new InSight();
  const [card, digits] = [{}, {}];
  inSight.show(card, { everywhere: ['a', 'b'] });
  inSight.show(digits, { inFront: ['a'], everywhere: ['b'] });
  expect(inSight.visible).toEqual({ everywhere: ['a', 'b'], inFront: ['a'] });
  // The same one that shows something else now.
  inSight.show(card, { inFront: ['c'] });
  expect(inSight.visible).toEqual({ everywhere: ['b'], inFront: ['c', 'a'] });
  inSight.hide(digits);
  inSight.hide(card);
  expect(inSight.visible).toEqual({ everywhere: [], inFront: [] });
});

test('the same question as the last is answered by the same answer', () => {
  let asked = 0;
  const made = rememberedLast((a: object, b: number) => ({ a, b, times: ++asked }));
  const [one, other] = [{}, {}];
  const first = made(one, 1);
  expect(made(one, 1)).toBe(first);
  expect(made(other, 1)).toMatchObject({ times: 2 });
  expect(made(one, 1)).toMatchObject({ times: 3 });
});
