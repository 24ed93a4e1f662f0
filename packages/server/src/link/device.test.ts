import { type SampleFrame, type ToDevice, frameKinds, helloSchema, usualPlan } from '@heuristor/contracts';
import { type RecorderEffect, type RecorderEvent, type RecorderState } from '../recorder/state';
import { step } from '../recorder/step';
import { helloOf } from '../testing/fakeDevice';
import { LinkedDevice } from './device';

const linked = (changes: object = {}) => {
  const device = new LinkedDevice(1, helloSchema.parse({ ...helloOf('K7-D'), ...changes }), {
    connected: true,
    rate: null,
    reversed: false,
    zeros: {},
    keyHash: null,
  });
  const told: ToDevice[] = [];
  device.send = (message) => told.push(message);
  device.restart();
  return { device, told };
};

const frame = (
  device: LinkedDevice,
  firstIndex: number,
  values: number[],
  times?: number[],
): SampleFrame => ({
  kind: frameKinds.link,
  subject: device.stream?.number ?? 0,
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

  constructor(private readonly device: LinkedDevice) {}

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

  arm(now: number, lengthSeconds: number): void {
    const { stream, hello, code } = this.device;
    if (stream === null) throw new Error('no stream');
    const track = {
      channelKey: 'x',
      channel: 0,
      fields: {
        key: 'x',
        symbol: 'x',
        quantity: 'position',
        unit: 'm',
        timeUnit: 's',
        low: 0,
        high: 6,
        noise: null,
        deviceCode: code,
        zero: 0,
        reversed: false,
      },
    };
    const { number, rate, clock } = stream;
    this.tell({
      kind: 'arm',
      now,
      plan: { ...usualPlan, lengthSeconds },
      sources: [
        { code, stream: number, rate, sampling: hello.sampling, epoch: clock.epoch, tracks: [track] },
      ],
    });
  }

  enter(): void {
    this.tell({ kind: 'entered' });
    for (const taken of this.device.ring.kept()) this.feed(taken.frame);
  }

  feed({ firstIndex, values, channels, times }: SampleFrame): void {
    const { stream, code } = this.device;
    if (stream === null) throw new Error('no stream');
    this.tell({
      kind: 'readings',
      code,
      stream: stream.number,
      epoch: stream.clock.epoch,
      firstIndex,
      channels,
      values,
      times,
    });
  }
}

test('a run that begins while messages come late misses none of its readings', () => {
  // The first messages were 60 ms late, so the stream seemed to have begun 60 ms later than it did; while the run was being
  // entered, the way cleared.
  const { device } = linked();
  const now = performance.now();
  device.accept(frame(device, 0, indices(0, 50)), now + 980 + 60);
  const recording = new Recording(device);
  recording.arm(now + 1045, 0.4);
  device.accept(frame(device, 50, indices(50, 2)), now + 1046);
  device.accept(frame(device, 52, indices(52, 4)), now + 1100);
  device.accept(frame(device, 56, indices(56, 40)), now + 1900);
  recording.enter();
  expect(recording.values).toHaveLength(21);
  expect(recording.values).toEqual(indices(recording.values[0], 21));
});

test('timed readings keep ascending while the link learns when their stream began', () => {
  const { device } = linked({ sampling: 'timed' });
  const now = performance.now();
  const arrive = (index: number, seconds: number, lateMs: number) => {
    const sent = frame(device, index, [index], [seconds]);
    expect(device.accept(sent, now + seconds * 1000 + lateMs).kind).toBe('taken');
    return sent;
  };
  arrive(0, 0.01, 200);
  const recording = new Recording(device);
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
  const { device } = linked({ sampling: 'timed' });
  const now = performance.now();
  device.accept(frame(device, 0, [1], [0.5]), now + 510);
  const began = device.stream?.clock.epoch;
  expect(device.accept(frame(device, 1, [1], [86_400]), now + 520).kind).toBe('impossible');
  expect(device.stream?.clock.epoch).toBe(began);
  expect(device.ring.kept()).toHaveLength(1);
  expect(device.accept(frame(device, 1, [2], [0.6]), now + 620).kind).toBe('taken');
});

test('a frame of an earlier stream, or of readings that came already, is passed over', () => {
  const { device } = linked();
  const now = performance.now();
  const old = frame(device, 0, [1, 2, 3]);
  expect(device.accept(old, now + 60).kind).toBe('taken');
  expect(device.accept(old, now + 61).kind).toBe('passed over');
  device.restart();
  expect(device.accept(frame(device, 0, [1]), now + 62).kind).toBe('taken');
  expect(device.accept({ ...old, firstIndex: 9 }, now + 63).kind).toBe('passed over');
});
