import { type ChannelFields, type TrialTable, type WorkingsDocument, channelOf } from '@heuristor/contracts';
import { type ChannelData, type Entry, parseUnit } from '@heuristor/core';
import {
  type Rig,
  buoy,
  buoyRest,
  lifeboat,
  motionLimits,
  motionNoise,
  simulate,
} from '@heuristor/stand-ins';
import { barsTable, entry, resultColumn, runColumn, sheet } from './experiment';

const rate = 50;

/** A run of one motion sensor. */
export interface MotionRun {
  name: string;
  rig: () => Rig;
  deviceCode: string;
  zero: number;
  /** Seconds from letting go to the start of the recording; negative to begin before. */
  delay: number;
  lengthSeconds: number;
  seed: number;
}

/** An investigation with one motion sensor; it is no template. */
export interface MotionStudy {
  name: string;
  workings: WorkingsDocument;
  tables?: TrialTable[];
  runs: readonly MotionRun[];
}

/** The channel of such a run, with its readings. */
export function motionOf({ rig: make, deviceCode, zero, delay, lengthSeconds, seed }: MotionRun): {
  channel: ChannelFields;
  values: Float64Array;
} {
  const rig = make();
  const { values } = simulate(
    rig,
    {
      code: deviceCode,
      stream: 'motion',
      rate,
      count: lengthSeconds * rate + 1,
      from: Math.max(delay, 0),
      seed,
    },
    [[Math.max(-delay, 0), () => rig.apparatus.control({ action: 'release' })]],
  );
  const channel = channelOf({
    key: 'x',
    quantity: 'position',
    unit: 'm',
    timeUnit: 's',
    sampling: { kind: 'regular', start: 0, interval: 1 / rate },
    low: motionLimits.low - zero,
    high: motionLimits.high - zero,
    noise: motionNoise,
    deviceCode,
    applied: {
      scale: 1,
      offset: -zero,
      range: 'range1',
      zero: { offset: zero, spread: motionNoise, at: new Date().toISOString() },
      twoPoint: null,
      reversed: false,
      zeroedAtStart: false,
      numbers: {},
    },
  });
  return { channel, values: Float64Array.from(values, (value) => value - zero) };
}

/** The same, as an evaluation takes it. */
export function motionData(run: MotionRun): ChannelData[] {
  const { channel, values } = motionOf(run);
  const { key, symbol, quantity, unit, timeUnit, low, high, noise } = channel;
  return [
    {
      key,
      symbol,
      quantity,
      unit: parseUnit(unit),
      timeUnit: parseUnit(timeUnit),
      sampling: { kind: 'regular', start: 0, interval: 1 / rate, count: values.length },
      values,
      low,
      high,
      noise,
    },
  ];
}

function buoyOn(stiffness: number, pull: number): Rig {
  const rig = buoy();
  rig.apparatus.control({ action: 'set', key: 'stiffness', value: stiffness });
  rig.apparatus.control({ action: 'set', key: 'amplitude', value: pull });
  rig.apparatus.control({ action: 'do', key: 'pull' });
  return rig;
}

function lifeboatAt(angle: number): Rig {
  const rig = lifeboat();
  rig.apparatus.control({ action: 'set', key: 'angle', value: angle });
  rig.apparatus.control({ action: 'do', key: 'top' });
  return rig;
}

const regionA = (name: string, start: number, end: number): Entry =>
  entry('region', 'region-a', name, { letter: 'A', along: 't', start, end });
const onA = { region: 'region-a' } as const;
const v = entry('derivative', 'v', 'v', { of: 'channel:x', windowPoints: 9 });

const buoyWorkings = sheet(
  [
    regionA('steady swing', 1.2, 6.8),
    entry('fit', 'swing', 'the swing', { ...onA, of: 'channel:x', relation: 'sine' }),
    v,
    entry('derivative', 'a', 'a', { of: 'entry:v', windowPoints: 9 }),
    entry('slope', 'minus-omega', 'minus ω²', { ...onA, of: 'entry:a', against: 'channel:x' }),
  ],
  ['channel:x', 'entry:v', 'entry:a'],
);

const lifeboatWorkings = sheet(
  [
    regionA('running down', 0.7, 1.9),
    entry('fit', 'path', 'the path', { ...onA, of: 'channel:x', relation: 'parabola' }),
    v,
    entry('slope', 'acceleration', 'acceleration from v', { ...onA, of: 'entry:v' }),
    entry('area', 'distance', 'distance from v', { ...onA, of: 'entry:v' }),
  ],
  ['channel:x', 'entry:v'],
);

export const lifeboatStudy: MotionStudy = {
  name: 'Lifeboat on the slipway: three tilts',
  workings: lifeboatWorkings,
  runs: [4, 6, 8].map((angle, i) => ({
    name: `${angle}° tilt`,
    rig: () => lifeboatAt(angle),
    deviceCode: 'K3-L',
    zero: 0.3,
    delay: -0.5,
    lengthSeconds: 3,
    seed: 40 + i,
  })),
};

const swingPeriod = resultColumn('swing', 'period', 'T');
const runName = runColumn('name');

export const buoyStudy: MotionStudy = {
  name: 'Channel buoy: soft and stiff spring',
  workings: buoyWorkings,
  tables: [barsTable('T of the springs', [runName, swingPeriod], swingPeriod, runName)],
  runs: [
    { name: 'soft', stiffness: 14, pull: 0.04, delay: 0.3 },
    { name: 'soft again', stiffness: 14, pull: 0.025, delay: 0.8 },
    { name: 'stiff', stiffness: 22.2, pull: 0.03, delay: 0.5 },
  ].map(({ name, stiffness, pull, delay }, i) => ({
    name,
    rig: () => buoyOn(stiffness, pull),
    deviceCode: 'K7-D',
    zero: buoyRest,
    delay,
    lengthSeconds: 8,
    seed: 70 + i,
  })),
};
