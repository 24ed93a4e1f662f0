/** @jest-environment jsdom */
import { type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { History } from './history';
import { tabSteps } from './stepMemory';

const sheet = (shift: number): WorkingsDocument => ({ ...emptyWorkings, shifts: [{ run: 'r', by: shift }] });

/** A bench with nothing on it but a sheet. */
function bench(present: WorkingsDocument) {
  const state = { sheet: present };
  const history = new History();
  const step = (before: WorkingsDocument, after: WorkingsDocument) => ({
    name: 'a step',
    undo: () => (state.sheet = before) as unknown as void,
    redo: () => (state.sheet = after) as unknown as void,
    document: { kind: 'workings' as const, before, after },
  });
  const change = (after: WorkingsDocument) => {
    history.push(step(state.sheet, after));
    state.sheet = after;
  };
  return { state, history, step, change };
}

beforeEach(() => sessionStorage.clear());

test('a hundred steps are taken back, and again, after a reload', () => {
  const before = bench(sheet(0));
  for (let i = 1; i <= 120; i++) before.change(sheet(i));
  for (let i = 0; i < 5; i++) before.history.undo();
  tabSteps('a', 'workings').save(before.history.stepsOf('workings', before.state.sheet));

  // The sheet comes from the server, as a document of its own.
  const after = bench(sheet(115));
  const steps = tabSteps('a', 'workings').load(after.state.sheet);
  if (steps === null) throw new Error('nothing was kept');
  after.history.takeUp(steps, after.step);
  after.history.redo();
  expect(after.state.sheet).toEqual(sheet(116));
  for (let i = 0; i < 101; i++) after.history.undo();
  expect(after.state.sheet).toEqual(sheet(15));
  after.history.undo();
  expect(after.state.sheet).toEqual(sheet(15));
});

test('what another hand has changed since is not taken back', () => {
  const before = bench(sheet(0));
  before.change(sheet(1));
  tabSteps('a', 'workings').save(before.history.stepsOf('workings', before.state.sheet));
  expect(tabSteps('a', 'workings').load(sheet(2))).toBeNull();
  expect(tabSteps('b', 'workings').load(sheet(1))).toBeNull();
  sessionStorage.setItem('steps of a workings', '{"states":[7],"at":0}');
  expect(tabSteps('a', 'workings').load(sheet(1))).toBeNull();
});

test('a step that was no change of the sheet ends what can be taken back', () => {
  const before = bench(sheet(0));
  before.change(sheet(1));
  before.history.push({ name: 'something else', undo: () => undefined, redo: () => undefined });
  before.change(sheet(2));
  expect(before.history.stepsOf('workings', before.state.sheet)).toEqual({
    states: [sheet(1), sheet(2)],
    at: 1,
  });
});

test('a drag is one step; more than the browser keeps loses its oldest steps', () => {
  const { state, history, change } = bench(sheet(0));
  history.hold();
  for (let i = 1; i <= 10; i++) change(sheet(i));
  history.release();
  expect(history.stepsOf('workings', state.sheet)).toEqual({ states: [sheet(0), sheet(10)], at: 1 });

  const wide = (i: number): WorkingsDocument => ({
    ...sheet(i),
    aside: Array.from({ length: 300 }, (_, k) => ({
      run: `run ${i} ${k}`,
      channel: 'x'.repeat(100),
      ranges: [[0, 1]] as [number, number][],
    })),
  });
  const large = bench(wide(0));
  for (let i = 1; i <= 90; i++) large.change(wide(i));
  tabSteps('a', 'workings').save(large.history.stepsOf('workings', large.state.sheet));
  const kept = tabSteps('a', 'workings').load(wide(90));
  expect(kept?.at).toBeGreaterThan(20);
  expect(kept?.at).toBeLessThan(60);
});
