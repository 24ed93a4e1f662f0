import fc from 'fast-check';
import { type SavingEvent, type SavingState, documentIn, savingStep } from './saving';

type State = SavingState<string>;
type Event = SavingEvent<string>;

const clean: State = { phase: 'clean', version: 1, stored: 'a' };
const after = (state: State, ...events: Event[]): State =>
  events.reduce((now, event) => savingStep(now, event)[0], state);
const edited = (document: string): Event => ({ kind: 'edited', document });

test('a change is sent after a pause, and stored with the version that the server gives', () => {
  const [dirty, wait] = savingStep(clean, edited('b'));
  expect(wait).toEqual([{ kind: 'wait', why: 'pause' }]);
  const [sending, send] = savingStep(dirty, { kind: 'time' });
  expect(send).toEqual([{ kind: 'send', version: 1, document: 'b' }]);
  expect(after(sending, { kind: 'stored', version: 2 })).toEqual({ phase: 'clean', version: 2, stored: 'b' });
});

test('a change that is undone before it was sent needs no sending', () =>
  expect(after(clean, edited('b'), edited('a'))).toEqual(clean));

test('what changes while it is on its way is sent next, from the new version', () => {
  const state = after(clean, edited('b'), { kind: 'time' }, edited('c'), { kind: 'stored', version: 2 });
  expect(state).toEqual({ phase: 'dirty', version: 2, stored: 'b', document: 'c' });
});

test('a server that does not answer is tried again; nothing is lost meanwhile', () => {
  const offline = after(clean, edited('b'), { kind: 'time' }, { kind: 'failed', sentence: 'away' });
  expect(offline).toMatchObject({ phase: 'offline', document: 'b', sentence: 'away' });
  const [again, effects] = savingStep(after(offline, edited('c')), { kind: 'time' });
  expect(again.phase).toBe('sending');
  expect(effects).toEqual([{ kind: 'send', version: 1, document: 'c' }]);
});

test('what the server refuses is not sent again until it is another one or a person wants it, and stays here', () => {
  const refused = after(clean, edited('b'), { kind: 'time' }, { kind: 'refused', sentence: 'too many' });
  expect(refused).toMatchObject({ phase: 'refused', document: 'b', sentence: 'too many' });
  expect(savingStep(refused, { kind: 'time' })).toEqual([refused, []]);
  expect(savingStep(refused, { kind: 'try-again' })[1]).toEqual([
    { kind: 'send', version: 1, document: 'b' },
  ]);
  expect(after(refused, edited('c')).phase).toBe('dirty');
  expect(after(refused, edited('a'))).toEqual(clean);
});

test('another screen’s document is laid out where nothing was changed here', () => {
  const [state, effects] = savingStep(clean, { kind: 'newer', theirs: 'z', theirVersion: 5 });
  expect(state).toEqual({ phase: 'clean', version: 5, stored: 'z' });
  expect(effects).toEqual([{ kind: 'lay-out', document: 'z' }]);
});

test('a reconnection brings the same version: what was edited meanwhile stays', () => {
  const dirty = after(clean, edited('b'));
  expect(savingStep(dirty, { kind: 'newer', theirs: 'a', theirVersion: 1 })).toEqual([dirty, []]);
});

test('where two have changed it a person decides, and both ways are open', () => {
  const conflict = after(
    clean,
    edited('b'),
    { kind: 'time' },
    { kind: 'stale', theirs: 'z', theirVersion: 4 },
  );
  expect(conflict).toMatchObject({ phase: 'conflict', document: 'b', theirs: 'z' });
  const [mine, wait] = savingStep(conflict, { kind: 'keep-mine' });
  expect(mine).toEqual({ phase: 'dirty', version: 4, stored: 'z', document: 'b' });
  expect(wait).toEqual([{ kind: 'wait', why: 'pause' }]);
  expect(savingStep(conflict, { kind: 'take-theirs' })).toEqual([
    { phase: 'clean', version: 4, stored: 'z' },
    [{ kind: 'lay-out', document: 'z', isChosen: true }],
  ]);
});

test('an answer that got lost is no conflict: what the server has is what was sent', () => {
  const failed = after(
    clean,
    edited('b'),
    { kind: 'time' },
    { kind: 'failed', sentence: 'lost' },
    { kind: 'time' },
  );
  expect(after(failed, { kind: 'stale', theirs: 'b', theirVersion: 2 })).toEqual({
    phase: 'clean',
    version: 2,
    stored: 'b',
  });
});

test('in any course of events the document in the hand is the last that was edited or laid out, and versions never fall', () => {
  const event: fc.Arbitrary<Event> = fc.oneof(
    fc.constantFrom('b', 'c', 'd').map(edited),
    fc.constant<Event>({ kind: 'time' }),
    fc.integer({ min: 2, max: 9 }).map((version): Event => ({ kind: 'stored', version })),
    fc.constant<Event>({ kind: 'failed', sentence: 'x' }),
    fc.integer({ min: 1, max: 9 }).map((n): Event => ({ kind: 'stale', theirs: `t${n}`, theirVersion: n })),
    fc.integer({ min: 1, max: 9 }).map((n): Event => ({ kind: 'newer', theirs: `n${n}`, theirVersion: n })),
    fc.constant<Event>({ kind: 'take-theirs' }),
    fc.constant<Event>({ kind: 'keep-mine' }),
  );
  fc.assert(
    fc.property(fc.array(event, { maxLength: 30 }), (events) => {
      let state: State = clean;
      let hand = 'a';
      for (const next of events) {
        const before = state.version;
        const [now, effects]: ReturnType<typeof savingStep<string>> = savingStep(state, next);
        if (next.kind === 'edited') hand = next.document;
        for (const effect of effects) if (effect.kind === 'lay-out') hand = effect.document;
        state = now;
        expect(documentIn(state)).toBe(hand);
        if (next.kind !== 'stored') expect(state.version).toBeGreaterThanOrEqual(before);
        // What is not stored is never called clean.
        if (state.phase === 'clean') expect(state.stored).toBe(hand);
      }
    }),
    { numRuns: 500, seed: 9 },
  );
});
