import { type Plan, usualPlan } from '@heuristor/contracts';
import { type RecorderEffect, type RecorderEvent, type RecorderState } from './state';
import { type Source, type TrackPlan } from './track';
import { step } from './step';

// Everything here is said by events with moments of their own; nothing waits.

const plan = (lengthSeconds: number | null, changes: Partial<Plan> = {}): Plan => ({
  ...usualPlan,
  end: lengthSeconds === null ? { kind: 'stopped' } : { kind: 'after', seconds: lengthSeconds },
  ...changes,
});

const fields = (key: string): TrackPlan['fields'] => ({
  key,
  symbol: key,
  quantity: 'position',
  unit: 'm',
  timeUnit: 's',
  low: 0.15,
  high: 6,
  noise: 0.0003,
  resolution: 0,
  edges: null,
  deviceCode: 'K7-D',
  applied: null,
});

const track = (key: string, changes: Partial<TrackPlan> = {}): TrackPlan => ({
  channelKey: 'x',
  channel: 0,
  scale: 1,
  offset: 0,
  still: null,
  fields: fields(key),
  ...changes,
});

const source = (code = 'K7-D', changes: Partial<Source> = {}): Source => ({
  code,
  stream: 1,
  rate: 50,
  sampling: 'regular',
  epoch: 1000,
  tracks: [track(code === 'K7-D' ? 'x' : 'y')],
  ...changes,
});

type Appended = Extract<RecorderEffect, { kind: 'append' }>;

/** A recording led through events, and what it wanted done. */
class Course {
  state: RecorderState = { phase: 'idle' };
  readonly effects: RecorderEffect[] = [];

  tell(event: RecorderEvent): RecorderEffect[] {
    const [state, effects] = step(this.state, event);
    this.state = state;
    this.effects.push(...effects);
    return effects;
  }

  begin(lengthSeconds: number | null, sources: Source[] = [source()], now = 2000): this {
    this.tell({ kind: 'arm', now, plan: plan(lengthSeconds), sources });
    this.tell({ kind: 'entered' });
    return this;
  }

  /** Readings of one channel, each its own index. */
  send(
    firstIndex: number,
    count: number,
    changes: Partial<Extract<RecorderEvent, { kind: 'readings' }>> = {},
  ) {
    return this.tell({
      kind: 'readings',
      code: 'K7-D',
      stream: 1,
      epoch: 1000,
      firstIndex,
      channels: 1,
      values: Float64Array.from({ length: count }, (_, i) => firstIndex + i),
      times: null,
      ...changes,
    });
  }

  /** All readings of a track as they lie, holes as NaN. */
  readings(track = 0): number[] {
    const out: number[] = [];
    for (const effect of this.effects) {
      if (effect.kind !== 'append' || effect.track !== track) continue;
      effect.values.forEach((value, i) => (out[effect.firstIndex + i] = value));
    }
    return Array.from(out, (value) => value ?? NaN);
  }

  get running() {
    if (!('tracks' in this.state)) throw new Error(`it is ${this.state.phase}`);
    return this.state;
  }
}

describe('a run that begins at once', () => {
  test('begins with the next reading of its device, at time 0', () => {
    const course = new Course();
    const [enter] = course.tell({ kind: 'arm', now: 2007, plan: plan(1), sources: [source()] });
    expect(course.running.phase).toBe('armed');
    expect(course.running.origin).toBe(2020);
    expect(enter).toMatchObject({
      kind: 'enter',
      channels: [{ key: 'x', sampling: { kind: 'regular', start: 0, interval: 0.02 } }],
    });
  });

  test('keeps what comes while it is entered: it is replayed from the streams, never lost', () => {
    const course = new Course();
    course.tell({ kind: 'arm', now: 2000, plan: plan(1), sources: [source()] });
    expect(course.send(50, 10)).toEqual([]);
    expect(course.tell({ kind: 'entered' })).toEqual([{ kind: 'replay' }]);
    course.send(50, 10);
    expect(course.readings()).toEqual([50, 51, 52, 53, 54, 55, 56, 57, 58, 59]);
  });

  test('is not ended by time while it is entered, however long that takes: its readings come first', () => {
    const course = new Course();
    course.tell({ kind: 'arm', now: 2007, plan: plan(1), sources: [source()] });
    course.tell({ kind: 'tick', now: 60_000 });
    expect(course.state.phase).toBe('armed');
    expect(course.tell({ kind: 'entered' })).toEqual([{ kind: 'replay' }]);
    course.send(51, 51);
    course.tell({ kind: 'tick', now: 60_100 });
    expect(course.state.phase).toBe('ending');
    const values = course.effects.flatMap((effect) => (effect.kind === 'append' ? [...effect.values] : []));
    expect(values).toHaveLength(51);
  });

  test('a run of one second at 50 Hz holds 51 readings and ends by itself', () => {
    const course = new Course().begin(1);
    course.send(45, 30);
    course.send(75, 30);
    expect(course.readings()).toEqual(Array.from({ length: 51 }, (_, i) => 50 + i));
    expect(course.running.phase).toBe('ending');
    expect(course.effects.at(-1)).toEqual({ kind: 'finish' });
    course.tell({ kind: 'stored' });
    expect(course.state).toEqual({ phase: 'idle' });
  });

  test('a second device with another clock lies where it belongs', () => {
    const second = source('K3-L', { epoch: 1006, rate: 20 });
    const course = new Course().begin(1, [source(), second]);
    const [, second20] = course.running.tracks;
    // Its first reading at or after the beginning, 2000 ms, is number 20 at 2006 ms.
    expect(second20.start).toBeCloseTo(0.006, 9);
    course.send(20, 5, { code: 'K3-L', epoch: 1006 });
    expect(course.readings(1)).toEqual([20, 21, 22, 23, 24]);
  });

  test('zero and sign are those of the moment at which it began', () => {
    const turned = source('K7-D', {
      tracks: [track('x', { channel: 1, scale: -1, offset: 10 })],
    });
    const course = new Course().begin(1, [turned]);
    course.send(50, 2, { channels: 2, values: Float64Array.of(1, 12, 2, 13) });
    expect(course.readings()).toEqual([-2, -3]);
  });

  test('what cannot be entered fails with its sentence, and the next can begin', () => {
    const course = new Course();
    course.tell({ kind: 'arm', now: 2000, plan: plan(1), sources: [source()] });
    course.tell({ kind: 'not-entered', sentence: 'the database is away' });
    expect(course.state).toEqual({ phase: 'failed', sentence: 'the database is away' });
    course.tell({ kind: 'arm', now: 2000, plan: plan(1), sources: [source()] });
    expect(course.running.phase).toBe('armed');
  });
});

describe('readings that do not follow on', () => {
  test('frames of another stream and frames sent twice are passed over', () => {
    const course = new Course().begin(null);
    course.send(50, 5);
    course.send(50, 5);
    course.send(53, 5);
    course.send(58, 5, { stream: 7 });
    expect(course.readings()).toEqual([50, 51, 52, 53, 54, 55, 56, 57]);
  });

  test('one lost here and there is counted and said at the end, not marked', () => {
    const course = new Course().begin(null);
    for (let first = 50; first < 150; first += 10) course.send(first, 9);
    expect(course.running.gaps).toEqual([]);
    course.tell({ kind: 'stop', now: 4000 });
    expect(course.running.notes).toEqual([
      'K7-D lost 9 of 99 readings of x, here and there; they are left out.',
    ]);
    expect(course.readings().filter(Number.isNaN)).toHaveLength(9);
  });

  test('a longer hole is marked, and filled with missing readings where it is short', () => {
    const course = new Course().begin(null);
    course.send(50, 5);
    course.send(75, 5);
    expect(course.running.gaps).toEqual([{ channel: 'x', from: 0.1, to: 0.5 }]);
    expect(course.readings()).toHaveLength(30);
  });

  test('a hole of minutes at 100 kHz is not filled in: blocks jump over it', () => {
    const fast = source('K7-D', { rate: 100_000 });
    const course = new Course().begin(null, [fast]);
    const at = 100_000;
    course.send(at, 10);
    const effects = course.send(at + 9_000_000, 10);
    const append = effects.find((effect): effect is Appended => effect.kind === 'append');
    expect(append?.firstIndex).toBe(9_000_000);
    expect(append?.values).toHaveLength(10);
    expect(course.running.gaps).toHaveLength(1);
  });

  test('however often a device stutters, the list of its gaps stays short', () => {
    const course = new Course().begin(null);
    for (let i = 0; i < 3000; i++) course.send(50 + i * 100, 5);
    expect(course.running.gaps.length).toBeLessThanOrEqual(100);
    expect(course.running.gaps.at(-1)?.to).toBeCloseTo(2999 * 2, 6);
  });
});

describe('a device that goes and comes back', () => {
  const back = (
    channel: number | null,
    now: number,
    { stream = 2, isWhole = false } = {},
  ): RecorderEvent => ({
    kind: 'returned',
    code: 'K7-D',
    places: channel === null ? null : { x: { stream, channel, isWhole } },
    now,
  });

  test('goes on where its clock says, with a marked gap', () => {
    const course = new Course().begin(null);
    course.send(50, 10);
    course.tell({ kind: 'left', code: 'K7-D', sendsAgain: false, now: 2200 });
    course.tell(back(0, 2900));
    // Its new stream began at 3000 ms: reading 50 of the run.
    course.send(0, 5, { stream: 2, epoch: 3000 });
    expect(course.running.gaps).toEqual([{ channel: 'x', from: 0.2, to: 1 }]);
    expect(course.readings().slice(50)).toEqual([0, 1, 2, 3, 4]);
  });

  test('with its channels in another order is read by their keys', () => {
    const course = new Course().begin(null);
    course.send(50, 1);
    course.tell({ kind: 'left', code: 'K7-D', sendsAgain: false, now: 2100 });
    course.tell(back(1, 2200));
    course.send(0, 2, { stream: 2, epoch: 2200, channels: 2, values: Float64Array.of(7, 8, 9, 10) });
    expect(course.readings().slice(-2)).toEqual([8, 10]);
  });

  test('as another one than the run knows ends its part, with a gap to the end and a sentence', () => {
    const course = new Course().begin(3, [source(), source('K3-L')]);
    course.send(50, 10);
    course.tell({ kind: 'left', code: 'K7-D', sendsAgain: false, now: 2200 });
    course.tell(back(null, 2500));
    course.send(0, 50, { stream: 2, epoch: 2500 });
    course.send(50, 200, { code: 'K3-L' });
    expect(course.running.phase).toBe('ending');
    expect(course.readings()).toHaveLength(10);
    expect(course.running.gaps).toEqual([{ channel: 'x', from: 0.2, to: 3 }]);
    expect(course.running.notes[0]).toMatch('K7-D came back with other channels');
  });

  describe('and has gone on meanwhile', () => {
    const gone = (now: number): RecorderEvent => ({ kind: 'left', code: 'K7-D', sendsAgain: true, now });

    test('leaves no gap, and no reading stands elsewhere, though its clock is known otherwise by now', () => {
      const course = new Course().begin(3);
      course.send(50, 50);
      course.tell(gone(3000));
      course.tell(back(0, 4500, { stream: 1, isWhole: true }));
      // By the new relation of the clocks, reading 0 was taken 30 ms later.
      course.send(100, 80, { epoch: 1030 });
      course.send(180, 21, { epoch: 1030 });
      expect(course.readings()).toEqual(Array.from({ length: 151 }, (_, i) => 50 + i));
      expect(course.running.gaps).toEqual([]);
      expect(course.running.phase).toBe('ending');
    });

    test('has a gap where it had to let readings go', () => {
      const course = new Course().begin(null);
      course.send(50, 50);
      course.tell(gone(3000));
      course.tell(back(0, 14_500, { stream: 1 }));
      course.send(150, 10);
      expect(course.running.gaps).toEqual([{ channel: 'x', from: 1, to: 2 }]);
      expect(course.readings().slice(100)).toEqual(Array.from({ length: 10 }, (_, i) => 150 + i));
    });

    test('is waited for beyond the end of the run, ten seconds at most, and not once it began anew', () => {
      const phaseAt = (now: number, ...before: RecorderEvent[]) => {
        const course = new Course().begin(1);
        course.send(50, 10);
        course.tell(gone(2200));
        for (const event of before) course.tell(event);
        course.tell({ kind: 'tick', now });
        return course.running.phase;
      };
      expect(phaseAt(13_100)).toBe('recording');
      expect(phaseAt(13_300)).toBe('ending');
      expect(phaseAt(4600, back(0, 4500, { stream: 1, isWhole: true }))).toBe('recording');
      expect(phaseAt(4600, back(0, 4500))).toBe('ending');
    });

    test('brings events that fell into the break, with no gap; with one where it cannot have all of them', () => {
      for (const isWhole of [true, false]) {
        const course = new Course();
        const gate = source('K7-D', { sampling: 'events', rate: 1 });
        course.tell({ kind: 'arm', now: 2000, plan: plan(null), sources: [gate] });
        course.tell({ kind: 'entered' });
        course.send(0, 1, { times: Float64Array.of(1.5) });
        course.tell(gone(3000));
        course.tell(back(0, 6000, { stream: 1, isWhole }));
        course.send(1, 2, { times: Float64Array.of(2.5, 3.5), epoch: 1040 });
        const times = course.effects.flatMap((effect) =>
          effect.kind === 'append' ? [...(effect.times ?? [])] : [],
        );
        expect(times).toEqual([0.5, 1.5, 2.5]);
        expect(course.running.gaps).toEqual(isWhole ? [] : [{ channel: 'x', from: 1, to: 1.5 }]);
      }
    });
  });

  test('never to come leaves a gap up to the end, and does not hold the run up', () => {
    const course = new Course().begin(1);
    course.send(50, 10);
    course.tell({ kind: 'left', code: 'K7-D', sendsAgain: false, now: 2200 });
    course.tell({ kind: 'tick', now: 3400 });
    expect(course.running.phase).toBe('recording');
    course.tell({ kind: 'tick', now: 4600 });
    expect(course.running.phase).toBe('ending');
    expect(course.running.gaps).toEqual([{ channel: 'x', from: 0.2, to: 1 }]);
  });

  test('that cannot be believed ends its part at once and is said once', () => {
    const course = new Course().begin(null, [source(), source('K3-L')]);
    course.send(50, 10);
    for (let i = 0; i < 3; i++)
      course.tell({ kind: 'disbelieved', code: 'K7-D', sentence: 'K7-D sends too fast.', now: 2200 });
    course.send(60, 10);
    expect(course.readings()).toHaveLength(10);
    expect(course.running.notes).toEqual(['K7-D sends too fast.']);
    expect(course.running.phase).toBe('recording');
  });
});

describe('events and times of their own', () => {
  const gate = source('P1-G', { sampling: 'events', rate: 1, epoch: 1000 });

  test('are kept with their times on the run’s clock, from its beginning to its length', () => {
    const course = new Course();
    const [enter] = course.tell({ kind: 'arm', now: 2000, plan: plan(1), sources: [gate] });
    expect(enter).toMatchObject({ channels: [{ sampling: { kind: 'events' } }] });
    course.tell({ kind: 'entered' });
    course.send(0, 4, {
      code: 'P1-G',
      values: Float64Array.of(1, 0, 1, 0),
      times: Float64Array.of(0.5, 1.25, 1.75, 2.5),
    });
    const append = course.effects.find((effect): effect is Appended => effect.kind === 'append');
    expect([...(append?.times ?? [])]).toEqual([0.25, 0.75]);
    expect([...(append?.values ?? [])]).toEqual([0, 1]);
    course.tell({ kind: 'tick', now: 4600 });
    expect(course.running.phase).toBe('ending');
  });
});

test('nothing that comes at the wrong moment does any harm', () => {
  const events: RecorderEvent[] = [
    { kind: 'entered' },
    { kind: 'stored' },
    { kind: 'stop', now: 1 },
    { kind: 'tick', now: 1 },
    { kind: 'left', code: 'K7-D', sendsAgain: false, now: 1 },
    { kind: 'remarked', sentence: 'hm' },
    { kind: 'not-entered', sentence: 'no' },
  ];
  for (const event of events) expect(step({ phase: 'idle' }, event)).toEqual([{ phase: 'idle' }, []]);
  const ending = new Course().begin(1);
  ending.tell({ kind: 'stop', now: 2500 });
  for (const event of events.filter(({ kind }) => kind !== 'stored'))
    expect(step(ending.state, event)).toEqual([ending.state, []]);
});
