import { History } from './history';

/** A number whose changes are remembered. */
function remembered() {
  const history = new History();
  let value = 0;
  const set = (next: number) => {
    const before = value;
    value = next;
    history.push({ name: `to ${next}`, undo: () => (value = before), redo: () => (value = next) });
  };
  return { history, set, value: () => value };
}

test('every step is taken back and taken again, in order', () => {
  const { history, set, value } = remembered();
  [1, 2, 3].forEach(set);
  const back = [1, 2, 3, 4].map(() => {
    history.undo();
    return value();
  });
  expect(back).toEqual([2, 1, 0, 0]);
  [1, 2, 3, 4].forEach(() => history.redo());
  expect(value()).toBe(3);
});

test('a drag of many changes is one step, back to where it began and forth to where it ended', () => {
  const { history, set, value } = remembered();
  set(5);
  history.hold();
  for (let i = 6; i < 60; i++) set(i);
  history.release();
  set(100);
  history.undo();
  expect(value()).toBe(59);
  history.undo();
  expect(value()).toBe(5);
  history.redo();
  expect(value()).toBe(59);
});

test('a new step ends what could be taken again', () => {
  const { history, set, value } = remembered();
  [1, 2].forEach(set);
  history.undo();
  set(7);
  history.redo();
  expect(value()).toBe(7);
  expect(history.state.getState()).toEqual({ undo: 'to 7', redo: null });
});

test('undoing in the middle of a drag ends the drag', () => {
  const { history, set, value } = remembered();
  set(1);
  history.hold();
  set(2);
  history.undo();
  expect(value()).toBe(1);
  set(3);
  set(4);
  history.undo();
  expect(value()).toBe(3);
});

test('buttons know whether there is anything to take back', () => {
  const { history, set } = remembered();
  expect(history.state.getState()).toEqual({ undo: null, redo: null });
  set(1);
  expect(history.state.getState().undo).not.toBeNull();
  history.undo();
  expect(history.state.getState()).toEqual({ undo: null, redo: 'to 1' });
});

test('what was done on a page is taken back there, and not on another', () => {
  const { history, set, value } = remembered();
  set(1);
  history.enter('stage');
  expect(history.state.getState()).toEqual({ undo: null, redo: null });
  history.undo();
  expect(value()).toBe(1);
  set(2);
  expect(history.state.getState().undo).toBe('to 2');
  history.enter('');
  expect(history.state.getState().undo).toBe('to 1');
  history.undo();
  expect(value()).toBe(0);
  // A step elsewhere does not end what can be taken again here.
  history.enter('stage');
  set(3);
  history.enter('');
  expect(history.state.getState().redo).toBe('to 1');
});

test('a drag that goes on when another page is opened ends there', () => {
  const { history, set, value } = remembered();
  history.hold();
  [1, 2].forEach(set);
  history.enter('stage');
  set(3);
  history.undo();
  expect(value()).toBe(2);
  history.enter('');
  history.undo();
  expect(value()).toBe(0);
});
