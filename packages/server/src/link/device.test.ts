import {
  type SampleFrame,
  type Setup,
  type ToDevice,
  describeDevice,
  frameKinds,
  helloSchema,
  noCalibration,
  usualPlan,
  usualSetup,
} from '@heuristor/contracts';
import { type RecorderEffect, type RecorderEvent, type RecorderState } from '../recorder/state';
import { readingsOf, sourcesOf } from '../recorder/sources';
import { step } from '../recorder/step';
import { helloOf } from '../testing/fakeDevice';
import { LinkedDevice, type LinkedStream } from './device';

const linked = (changes: object = {}) => {
  const description = describeDevice(helloSchema.parse({ ...helloOf('K7-D'), ...changes }));
  const device = new LinkedDevice(description, () => 1, noCalibration, null);
  const told: ToDevice[] = [];
  device.send = (message) => told.push(message);
  device.use = { investigation: 'i', name: 'Here', setup: usualSetup };
  device.settle(performance.now());
  const [stream] = device.streams;
  return { device, stream, told };
};

const frame = (
  stream: LinkedStream,
  firstIndex: number,
  values: number[],
  times?: number[],
): SampleFrame => ({
  kind: frameKinds.link,
  subject: stream.sending?.number ?? 0,
  firstIndex,
  channels: 1,
  values: Float64Array.from(values),
  times: times === undefined ? null : Float64Array.from(times),
});

const indices = (from: number, count: number) => Array.from({ length: count }, (_, i) => from + i);

/** A recording of one device that is fed from what the link has kept, and all that it stored. */
class Recording {
  private state: RecorderState = { phase: 'idle' };
  readonly times: number[] = [];
  readonly values: number[] = [];

  constructor(private readonly stream: LinkedStream) {}

  tell(event: RecorderEvent): RecorderEffect[] {
    const [state, effects] = step(this.state, event);
    this.state = state;
    for (const effect of effects)
      if (effect.kind === 'append') {
        this.values.push(...effect.values);
        this.times.push(...(effect.times ?? []));
      }
    return effects;
  }

  arm(now: number, seconds: number): void {
    const { sources, plan } = sourcesOf(
      [this.stream.device],
      { ...usualPlan, end: { kind: 'after', seconds } },
      () => true,
    );
    this.tell({ kind: 'arm', now, plan, sources });
  }

  enter(): void {
    this.tell({ kind: 'entered' });
    for (const taken of this.stream.ring.kept()) this.feed(taken.frame);
  }

  feed(taken: SampleFrame): void {
    const event = readingsOf(this.stream, taken);
    if (event === null) throw new Error('no stream');
    this.tell(event);
  }
}

test('a run that begins while messages come late misses none of its readings', () => {
  // The first messages were 60 ms late, so the stream seemed to have begun 60 ms later than it did; while the run was being
  // entered, the way cleared.
  const { stream } = linked();
  const now = performance.now();
  stream.accept(frame(stream, 0, indices(0, 50)), now + 980 + 60);
  const recording = new Recording(stream);
  recording.arm(now + 1045, 0.4);
  stream.accept(frame(stream, 50, indices(50, 2)), now + 1046);
  stream.accept(frame(stream, 52, indices(52, 4)), now + 1100);
  stream.accept(frame(stream, 56, indices(56, 40)), now + 1900);
  recording.enter();
  expect(recording.values).toHaveLength(21);
  expect(recording.values).toEqual(indices(recording.values[0], 21));
});

test('timed readings keep ascending while the link learns when their stream began', () => {
  const { stream } = linked({ sampling: 'timed' });
  const now = performance.now();
  const arrive = (index: number, seconds: number, lateMs: number) => {
    const sent = frame(stream, index, [index], [seconds]);
    expect(stream.accept(sent, now + seconds * 1000 + lateMs).kind).toBe('taken');
    return sent;
  };
  arrive(0, 0.01, 200);
  const recording = new Recording(stream);
  recording.arm(now + 215, 5);
  recording.enter();
  recording.feed(arrive(1, 0.1, 190));
  recording.feed(arrive(2, 0.3, 1));
  recording.feed(arrive(3, 0.31, 1));
  recording.feed(arrive(4, 0.5, 1));
  expect(recording.times.length).toBeGreaterThanOrEqual(3);
  for (let i = 1; i < recording.times.length; i++)
    expect(recording.times[i]).toBeGreaterThan(recording.times[i - 1]);
  expect(recording.times[recording.times.length - 1] - recording.times[0]).toBeCloseTo(
    0.5 - [0.01, 0.1, 0.3, 0.31, 0.5][recording.values[0]],
    9,
  );
});

test('a timed reading from the future is left out, and the next one is believed', () => {
  const { stream } = linked({ sampling: 'timed' });
  const now = performance.now();
  stream.accept(frame(stream, 0, [1], [0.5]), now + 510);
  const began = stream.sending?.clock.epoch;
  expect(stream.accept(frame(stream, 1, [1], [86_400]), now + 520).kind).toBe('impossible');
  expect(stream.sending?.clock.epoch).toBe(began);
  expect(stream.ring.kept()).toHaveLength(1);
  expect(stream.accept(frame(stream, 1, [2], [0.6]), now + 620).kind).toBe('taken');
});

test('a frame of an earlier stream, or of readings that came already, is passed over', () => {
  const { device, stream } = linked();
  const now = performance.now();
  const old = frame(stream, 0, [1, 2, 3]);
  expect(stream.accept(old, now + 60).kind).toBe('taken');
  expect(stream.accept(old, now + 61).kind).toBe('passed over');
  device.start(stream, now + 61);
  expect(stream.accept(frame(stream, 0, [1]), now + 62).kind).toBe('taken');
  // The link knows a stream by its number; what an older one had on its way belongs to none.
  expect(readingsOf(stream, { ...old, firstIndex: 9 })).toBeNull();
});

describe('a device with several streams', () => {
  const two = {
    type: 'hello',
    protocol: 'heuristor-link',
    version: 2,
    device: { code: 'M2-X', model: 'Two in one' },
    streams: [
      {
        key: 'fast',
        rates: { lowest: 100, highest: 50_000, usual: 1000 },
        channels: [
          {
            key: 'voltage',
            quantity: 'voltage',
            symbol: 'U',
            unit: 'V',
            ranges: [
              { key: 'wide', low: -10, high: 10, noise: 0.005 },
              { key: 'fine', low: -1, high: 1, noise: 0.0005 },
            ],
          },
        ],
      },
      {
        key: 'slow',
        rates: { lowest: 1 / 60, highest: 2, usual: 1, only: [1 / 60, 1, 2] },
        channels: [
          {
            key: 'temperature',
            quantity: 'temperature',
            symbol: 'T',
            unit: 'K',
            ranges: [{ key: 'all', low: 250, high: 400, noise: 0.05, resolution: 0.01 }],
          },
        ],
      },
    ],
    numbers: [{ key: 'radius', label: 'Radius', unit: 'm', low: 0.01, high: 1, step: 0.001, value: 0.05 }],
  };
  const start = () => {
    const device = new LinkedDevice(describeDevice(helloSchema.parse(two)), () => 1, noCalibration, null);
    const told: ToDevice[] = [];
    device.send = (message) => told.push(message);
    const set = (setup: Setup) => {
      device.use = { investigation: 'i', name: 'Here', setup };
      told.length = 0;
      device.settle(1000);
      return told;
    };
    return { device, set };
  };

  test('starts each at its own rate and range; a change starts only what it concerns', () => {
    const { device, set } = start();
    expect(set(usualSetup)).toEqual([
      { type: 'start', of: 'fast', stream: 1, rate: 1000, ranges: { voltage: 'wide' } },
      { type: 'start', of: 'slow', stream: 2, rate: 1, ranges: { temperature: 'all' } },
    ]);
    const fine = { rates: {}, channels: { voltage: { range: 'fine' } } };
    expect(set(fine)).toEqual([
      { type: 'start', of: 'fast', stream: 3, rate: 1000, ranges: { voltage: 'fine' } },
    ]);
    expect(set({ ...fine, channels: { ...fine.channels, temperature: { on: false } } })).toEqual([
      { type: 'stop', of: 'slow' },
    ]);
    // A sign, a name or a unit is a matter of the server alone.
    expect(
      set({
        rates: {},
        channels: { voltage: { range: 'fine', reversed: true, unit: 'mV' }, temperature: { on: false } },
      }),
    ).toEqual([]);
    expect(device.streams[0].views[0]).toMatchObject({ scale: -1000, low: -1000, high: 1000, noise: 0.5 });
  });

  test('a rate that is not among those it has falls back to the usual one; kelvins can be shown as degrees Celsius', () => {
    const { device, set } = start();
    set({ rates: { slow: 1.5 }, channels: { temperature: { unit: 'Cel' } } });
    expect(device.streams[1].rate).toBe(1);
    const [view] = device.streams[1].views;
    expect(view.scale * 293.15 + view.offset).toBeCloseTo(20, 9);
  });
});
