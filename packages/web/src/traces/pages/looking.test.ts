import { createStore } from 'zustand/vanilla';
import { type Looks } from './lookMemory';
import { Looking, usualView } from './looking';
import { type View } from '../../investigation/state';

function looked() {
  const view = createStore<View>(() => usualView);
  return { view, looking: new Looking(view), sight: () => view.getState().sight };
}

test('every change of the view is one step back; a drag is one, however long', () => {
  const { view, looking, sight } = looked();
  looking.change({ sight: { from: 1, to: 2 } });
  view.setState({ moving: true });
  for (let to = 3; to < 20; to++) looking.change({ sight: { from: 1, to } });
  view.setState({ moving: false });
  looking.settle();
  looking.change({ scales: { 'channel:x/left': { from: 0, to: 5 } } });
  looking.back();
  expect(sight()).toEqual({ from: 1, to: 19 });
  expect(view.getState().scales).toEqual({});
  looking.back();
  expect(sight()).toEqual({ from: 1, to: 2 });
  looking.back();
  expect(sight()).toBeNull();
  expect(looking.state.getState().canGoBack).toBe(false);
  looking.back();
  expect(sight()).toBeNull();
});

test('two drags are two steps', () => {
  const { view, looking, sight } = looked();
  for (const to of [3, 4]) {
    view.setState({ moving: true });
    looking.change({ sight: { from: 0, to } });
    looking.change({ sight: { from: 0, to: to + 0.5 } });
    view.setState({ moving: false });
    looking.settle();
  }
  looking.back();
  expect(sight()).toEqual({ from: 0, to: 3.5 });
});

test('a page is found as it was left, with its own way back', () => {
  const { view, looking, sight } = looked();
  looking.change({ sight: { from: 1, to: 2 } });
  looking.open('second');
  expect(view.getState()).toMatchObject({ page: 'second', sight: null, reach: 'shown' });
  expect(looking.state.getState().canGoBack).toBe(false);
  looking.change({ reach: 'all' });
  looking.open(null);
  expect(sight()).toEqual({ from: 1, to: 2 });
  looking.back();
  expect(sight()).toBeNull();
  looking.open('second');
  expect(view.getState().reach).toBe('all');
});

test('only a region, and back to what was seen before', () => {
  const { looking, sight } = looked();
  looking.change({ sight: { from: 0, to: 10 } });
  looking.only({ from: 2, to: 3 });
  expect(sight()).toEqual({ from: 2, to: 3 });
  looking.only({ from: 2, to: 3 });
  expect(sight()).toEqual({ from: 0, to: 10 });
  // What was moved meanwhile is a view of its own.
  looking.only({ from: 2, to: 3 });
  looking.change({ sight: { from: 2.5, to: 3.5 } });
  looking.only({ from: 5, to: 6 });
  looking.only({ from: 5, to: 6 });
  expect(sight()).toEqual({ from: 2.5, to: 3.5 });
});

test('what pages showed is kept for the next time, each for itself', () => {
  let kept: Looks = {};
  const memory = { load: () => kept, save: (looks: Looks) => void (kept = looks) };
  const opened = () => {
    const view = createStore<View>(() => ({ ...usualView, page: 'a' }));
    return { view, looking: new Looking(view, memory) };
  };
  const first = opened();
  first.looking.change({ sight: { from: 1, to: 2 } });
  first.looking.open('b');
  first.looking.change({ reach: 'all' });
  first.looking.keep();
  const next = opened();
  expect(next.view.getState().sight).toEqual({ from: 1, to: 2 });
  expect(next.looking.state.getState().canGoBack).toBe(false);
  next.looking.open('b');
  expect(next.view.getState()).toMatchObject({ sight: null, reach: 'all' });
});
