import { type GuideDocument, type GuideItem, emptyGuide, mostInGuide, noSetting } from '@heuristor/contracts';
import {
  faultOfGuide,
  guideStepName,
  guideSteppedBack,
  withItem,
  withItemChanged,
  withItemMoved,
  withoutItem,
} from './guideDocument';

const step = (id: string): GuideItem => ({
  kind: 'step',
  id,
  title: id,
  text: '',
  picture: '',
  checks: [],
  setting: noSetting,
});
const guideOf = (...ids: string[]): GuideDocument => ({ ...emptyGuide, items: ids.map(step) });
const idsOf = ({ items }: GuideDocument) => items.map(({ id }) => id).join('');

test('items are added, moved and taken out', () => {
  expect(idsOf(withItem(guideOf('a', 'b'), step('c')))).toBe('abc');
  expect(idsOf(withItem(guideOf('a', 'b'), step('c'), 1))).toBe('acb');
  expect(idsOf(withItemMoved(guideOf('a', 'b', 'c'), 'a', 'c'))).toBe('bca');
  expect(idsOf(withItemMoved(guideOf('a', 'b', 'c'), 'c', 'a'))).toBe('cab');
  expect(idsOf(withItemMoved(guideOf('a'), 'a', 'nobody'))).toBe('a');
  expect(idsOf(withoutItem(guideOf('a', 'b'), 'a'))).toBe('b');
});

const two = guideOf('a', 'b');
test.each<[string, GuideDocument]>([
  ['add to the guide', withItem(two, step('c'))],
  ['remove from the guide', withoutItem(two, 'b')],
  ['change step 2', withItemChanged(two, { ...step('b'), title: 'other' })],
  ['move in the guide', withItemMoved(two, 'a', 'b')],
  ['release the answers', { ...two, isReleased: true }],
])('a step is called “%s”', (name, after) => expect(guideStepName(two, after)).toBe(name));

test('a step is taken back beside what another screen has changed since', () => {
  const mine = withItemChanged(two, { ...step('a'), title: 'mine' });
  const theirs = withItemChanged(mine, { ...step('b'), title: 'theirs' });
  const back = guideSteppedBack(theirs, mine, two);
  expect(back.isWhole).toBe(true);
  expect(back.document.items.map(({ title }) => title)).toEqual(['a', 'theirs']);
  const over = withItemChanged(mine, { ...step('a'), title: 'theirs' });
  expect(guideSteppedBack(over, mine, two)).toEqual({ document: over, isWhole: false });
});

test('what cannot be is said: too many, and an axis that runs backwards', () => {
  const many = guideOf(...Array.from({ length: mostInGuide.items + 1 }, (_, i) => String(i)));
  expect(faultOfGuide(two, many)).toBe('A guide has 60 steps and questions at most.');
  const axis = (from: number, to: number) => ({ title: 't', unit: 's', from, to });
  const sketch = (from: number, to: number): GuideDocument => ({
    ...emptyGuide,
    items: [
      {
        kind: 'sketch',
        id: 's',
        title: '',
        text: '',
        isBefore: true,
        over: '',
        across: axis(from, to),
        upright: axis(0, 1),
      },
    ],
  });
  expect(faultOfGuide(two, sketch(0, 5))).toBeNull();
  expect(faultOfGuide(two, sketch(5, 0))).toBe(
    'That cannot be: an axis goes from a smaller number to a larger one.',
  );
});
