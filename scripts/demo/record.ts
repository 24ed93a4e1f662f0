import {
  type ChannelFields,
  type ConditionValues,
  type PaceTarget,
  type SpotCell,
  type SpotColumn,
  channelOf,
  usualPlan,
} from '@heuristor/contracts';
import { addRows, addRun, changeRun, writeSamples } from '@heuristor/server';
import { type Rig, simulate } from '@heuristor/stand-ins';
import { spotMean, spotSwing } from '@heuristor/core';

/** What a hand does at the apparatus, by the second at which it does it. */
export type Acts = (rig: Rig) => readonly (readonly [second: number, act: () => void])[];

/** One stream of readings of a made-up run. */
export interface DemoStream {
  code: string;
  stream: string;
  rate: number;
  seconds: number;
  /** When it begins, in seconds after the apparatus was set up. */
  from: number;
  ranges?: Record<string, string>;
  /** What channels are called in the run, where that is not the sensor's own symbol. */
  symbols?: Record<string, string>;
  /** What is taken off each channel, by its own symbol. */
  zero?: Record<string, number>;
}

export interface DemoRun {
  name: string;
  /** Makes the apparatus anew: each stream is taken of one that does just the same. */
  rig: () => Rig;
  acts: Acts;
  streams: readonly DemoStream[];
  conditions?: ConditionValues;
  /** The line that was followed. */
  pace?: PaceTarget;
  seed: number;
}

/** Records a run from a stand-in, without a link. */
export async function record(investigationId: string, run: DemoRun | DemoSpots): Promise<void> {
  if ('typed' in run) {
    await recordSpots(investigationId, run);
    return;
  }
  const parts = readingsOf(run);
  const added = await addRun({
    investigationId,
    name: run.name,
    origin: 'recorded',
    state: 'ended',
    plan: {
      ...usualPlan,
      ...(run.pace === undefined ? {} : { way: 'pace', pace: run.pace }),
      end: { kind: 'after', seconds: run.streams[0].seconds },
    },
    channels: parts.map(({ channel }) => channel),
  });
  for (const [i, { values, times }] of parts.entries())
    await writeSamples(added.channels[i].id, values, times);
  if (run.conditions !== undefined) await changeRun(added.id, { conditions: run.conditions });
}

/** The channels of a run, each with its readings. */
export const readingsOf = (run: DemoRun) =>
  run.streams.flatMap((stream, i) => partsOf(run, stream, run.seed + 1000 * i));

/** The channels of one stream, each with its readings. */
function partsOf({ rig, acts }: DemoRun, stream: DemoStream, seed: number) {
  const { code, rate, seconds, from, ranges = {}, symbols = {}, zero = {} } = stream;
  const made = rig();
  const device = made.devices.find((one) => one.code === code);
  const plan = device?.streams.find(({ key }) => key === stream.stream);
  if (plan === undefined) throw new RangeError(`no stream ${stream.stream} of ${code}`);
  const isTimed = plan.sampling === 'events';
  const { values, times } = simulate(
    made,
    { code, stream: stream.stream, rate, count: Math.round(seconds * rate) + 1, from, ranges, seed },
    acts(made),
  );
  const channels = plan.channels.map(({ channel }) => channel);
  return channels.map((own, place) => {
    const range = own.ranges.find(({ key }) => key === ranges[own.key]) ?? own.ranges[0];
    const off = zero[own.symbol] ?? 0;
    const all = values.filter((_, i) => i % channels.length === place);
    const states = isTimed ? edgesOf(all, times ?? new Float64Array(0)) : null;
    return {
      values: states?.values ?? all.map((value) => value - off),
      times: states?.times ?? null,
      channel: channelOf({
        key: symbols[own.symbol] ?? own.symbol,
        quantity: own.quantity,
        unit: own.unit,
        timeUnit: 's',
        sampling: isTimed ? { kind: 'events' } : { kind: 'regular', start: 0, interval: 1 / rate },
        low: isTimed ? null : range.low - off,
        high: isTimed ? null : range.high - off,
        noise: isTimed ? null : range.noise,
        edges: plan.sampling === 'events' ? plan.edges : null,
        deviceCode: code,
        applied: isTimed
          ? null
          : {
              scale: 1,
              offset: -off,
              range: range.key,
              zero: off === 0 ? null : { offset: off, spread: range.noise, at: new Date().toISOString() },
              twoPoint: null,
              reversed: false,
              zeroedAtStart: false,
              numbers: {},
            },
      }),
    };
  });
}

/** Of the states of one switch at every event of its stream: those at which it changed. */
function edgesOf(states: Float64Array, times: Float64Array): { values: Float64Array; times: Float64Array } {
  const own = [...states.keys()].filter((i) => i > 0 && states[i] !== states[i - 1]);
  return {
    values: Float64Array.from(own, (i) => states[i]),
    times: Float64Array.from(own, (i) => times[i]),
  };
}

/** A series of single readings against a number that is typed. */
export interface DemoSpots {
  name: string;
  typed: { key: string; name: string; unit: string; values: readonly number[]; offset?: number };
  /** Takes the readings of a second at one of the typed numbers. */
  rig: () => Rig;
  code: string;
  stream: string;
  rate: number;
  ranges?: Record<string, string>;
  acts: (rig: Rig, value: number) => ReturnType<Acts>;
  from: number;
  channel: string;
  /** What is read of these readings. */
  take: 'mean' | 'amplitude';
  zero?: number;
  seed: number;
}

async function recordSpots(investigationId: string, spots: DemoSpots): Promise<void> {
  const { columns, channels, rows } = spotsOf(spots);
  const run = await addRun({
    investigationId,
    name: spots.name,
    origin: 'recorded',
    state: 'ended',
    plan: { ...usualPlan, way: 'spot' },
    spot: { seconds: 1, columns },
    channels,
  });
  await addRows(run.id, rows);
}

/** Columns, channels and rows of a series of single readings. */
export function spotsOf(spots: DemoSpots): {
  columns: SpotColumn[];
  channels: ChannelFields[];
  rows: Record<string, SpotCell>[];
} {
  const { typed, take, zero = 0 } = spots;
  const own = spots
    .rig()
    .devices.find(({ code }) => code === spots.code)
    ?.streams.find(({ key }) => key === spots.stream)
    ?.channels.map(({ channel }) => channel);
  const place = own?.findIndex(({ symbol }) => symbol === spots.channel) ?? -1;
  const channel = own?.[place];
  if (own === undefined || channel === undefined) throw new RangeError(`no channel ${spots.channel}`);
  const range = channel.ranges.find(({ key }) => key === spots.ranges?.[channel.key]) ?? channel.ranges[0];
  const key = take === 'mean' ? channel.symbol : 'A';
  const numbered = { timeUnit: '1', sampling: { kind: 'regular', start: 1, interval: 1 } } as const;
  return {
    columns: [
      {
        kind: 'typed',
        key: typed.key,
        name: typed.name,
        unit: typed.unit,
        offset: typed.offset ?? 0,
        output: null,
      },
      { kind: 'measured', key, quantity: channel.symbol, take },
    ],
    channels: [
      channelOf({ key: typed.key, quantity: typed.name, unit: typed.unit, ...numbered }),
      channelOf({
        key,
        quantity: take === 'mean' ? channel.quantity : `amplitude of ${channel.quantity}`,
        unit: channel.unit,
        low: take === 'mean' ? range.low - zero : null,
        high: take === 'mean' ? range.high - zero : null,
        deviceCode: spots.code,
        ...numbered,
      }),
    ],
    rows: typed.values.map((value, i) => ({
      [typed.key]: { typed: value },
      [key]: cellAt(value, spots.seed + i),
    })),
  };

  /** What is read of a second at one of the typed numbers. */
  function cellAt(value: number, seed: number): SpotCell {
    const made = spots.rig();
    const { values } = simulate(
      made,
      {
        code: spots.code,
        stream: spots.stream,
        rate: spots.rate,
        count: spots.rate,
        from: spots.from,
        ...(spots.ranges === undefined ? {} : { ranges: spots.ranges }),
        seed,
      },
      spots.acts(made, value),
    );
    const width = own?.length ?? 1;
    const all = values.filter((_, k) => k % width === place).map((reading) => reading - zero);
    const readings = {
      values: all,
      interval: 1 / spots.rate,
      noise: range.noise,
      resolution: range.resolution ?? 0,
    };
    const found = take === 'mean' ? spotMean(readings) : spotSwing(readings, take);
    return {
      value: found.value,
      u: found.standardUncertainty,
      spread: found.spread,
      count: found.count,
      pinned: all.some((reading) => reading <= range.low - zero || reading >= range.high - zero),
    };
  }
}
