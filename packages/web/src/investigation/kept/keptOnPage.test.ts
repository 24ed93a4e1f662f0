import { type ToScreen, type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { History } from '../history';
import { KeptOnPage } from './keptOnPage';

/** A server that holds one sheet a path, and what it was asked. */
function server() {
  const asked: string[] = [];
  const stored = { version: 1, workings: emptyWorkings };
  globalThis.fetch = (async (path: string, { method = 'GET', body }: RequestInit = {}) => {
    asked.push(`${method} ${path}`);
    if (method === 'PUT') {
      const sent = JSON.parse(String(body)) as typeof stored;
      if (sent.version !== stored.version) {
        const error = { code: 'stale-document', message: 'changed meanwhile', current: stored };
        return new Response(JSON.stringify({ error }), { status: 409 });
      }
      Object.assign(stored, { version: sent.version + 1, workings: sent.workings });
      return new Response(JSON.stringify({ version: stored.version }));
    }
    return new Response(JSON.stringify(stored));
  }) as typeof fetch;
  return { asked, stored };
}

function sheetOf(id: string, owner = 'me') {
  const history = new History();
  const state = { sheet: emptyWorkings };
  const kept = new KeptOnPage('workings', 1, owner, {
    id,
    history,
    present: () => state.sheet,
    lay: (sheet) => (state.sheet = sheet),
    isMoving: () => false,
  });
  const shift = (by: number) => {
    const before = state.sheet;
    return kept.change(before, { ...before, shifts: [{ run: 'r', by }] });
  };
  return { history, state, kept, shift };
}
const shifted = (by: number): WorkingsDocument => ({ ...emptyWorkings, shifts: [{ run: 'r', by }] });
const word = (version: number, owner: string): ToScreen => ({
  type: 'document',
  kind: 'workings',
  investigation: 'i',
  owner,
  version,
});

beforeEach(() => void jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
const aWhile = () => jest.advanceTimersByTimeAsync(500);

test('a change is stored by itself under the name of its kind, and is a step that has a name', async () => {
  const { asked, stored } = server();
  const { history, state, shift } = sheetOf('i');
  shift(0.5);
  expect(history.state.getState().undo).toBe('move runs in time');
  await aWhile();
  expect(asked).toEqual(['PUT /api/investigations/i/workings']);
  expect(stored).toEqual({ version: 2, workings: shifted(0.5) });
  history.undo();
  expect(state.sheet).toEqual(emptyWorkings);
  await aWhile();
  expect(stored).toEqual({ version: 3, workings: emptyWorkings });
});

test('what was stored of one’s own elsewhere is fetched and laid out; what others store is theirs', async () => {
  const { asked, stored } = server();
  const { state, kept } = sheetOf('i');
  Object.assign(stored, { version: 4, workings: shifted(0.7) });
  await kept.hear(word(9, 'somebody else'));
  await kept.hear(word(1, 'me'));
  expect(asked).toEqual([]);
  await kept.hear(word(4, 'me'));
  expect(asked).toEqual(['GET /api/investigations/i/workings']);
  expect(state.sheet).toEqual(shifted(0.7));
});

test('where both have changed it, a person decides; what is taken over can be taken back', async () => {
  const { stored } = server();
  const { history, state, kept, shift } = sheetOf('i');
  Object.assign(stored, { version: 2, workings: shifted(0.7) });
  shift(0.5);
  await aWhile();
  expect(kept.saver.state.getState().phase).toBe('conflict');
  expect(state.sheet).toEqual(shifted(0.5));
  kept.saver.tell({ kind: 'take-theirs' });
  expect(state.sheet).toEqual(shifted(0.7));
  expect(history.state.getState().undo).toBe('take the other screen’s workings');
  history.undo();
  expect(state.sheet).toEqual(shifted(0.5));
});

test('two investigations in one tab know nothing of each other', async () => {
  const { asked } = server();
  const [first, second] = [sheetOf('i'), sheetOf('j')];
  first.shift(0.5);
  await aWhile();
  expect(asked).toEqual(['PUT /api/investigations/i/workings']);
  expect([second.state.sheet, second.history.state.getState()]).toEqual([
    emptyWorkings,
    { undo: null, redo: null },
  ]);
});
