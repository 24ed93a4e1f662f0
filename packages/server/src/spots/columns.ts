import {
  type ChannelFields,
  type Plan,
  type SpotColumn,
  type SpotTake,
  channelOf,
  mostSpotColumns,
} from '@heuristor/contracts';
import { parseUnit, ucumCode } from '@heuristor/core';
import { Failure } from '../failure';
import { type LinkedStream } from '../link/device';
import { type Presence } from '../presence/presence';
import { sourcesOf } from '../recorder/sources';
import { type TrackPlan } from '../recorder/track';

/** A quantity that can be read, and where it comes from. */
export interface Readable {
  stream: LinkedStream;
  track: TrackPlan;
}

type Measured = Extract<SpotColumn, { kind: 'measured' }>;

/** Everything of an investigation that sends at a rate, by the key of its quantity, and the plan with these keys bound. */
export function readables(
  presence: Presence,
  investigationId: string,
  plan: Plan,
): { found: Map<string, Readable>; plan: Plan } {
  const devices = presence.ready(investigationId);
  const { sources, plan: bound } = sourcesOf(devices, plan, (code) => presence.isUsed(code, investigationId));
  const streams = devices.flatMap((device) => device.streams);
  const found = new Map<string, Readable>();
  for (const { code, stream: number, sampling, tracks } of sources) {
    const stream = streams.find(({ device, sending }) => device.code === code && sending?.number === number);
    if (sampling === 'regular' && stream !== undefined)
      for (const track of tracks) found.set(track.fields.key, { stream, track });
  }
  return { found, plan: bound };
}

/** The columns of a new series: what is typed, as the plan has it, and what is read of each quantity. @throws Failure */
export function columnsOf(plan: Plan, found: ReadonlyMap<string, Readable>): SpotColumn[] {
  const { columns, takes } = plan.spot;
  const taken = new Set(columns.map(({ key }) => key));
  const measured = [...found.keys()].flatMap((quantity): Measured[] => {
    const take = Object.hasOwn(takes, quantity) ? takes[quantity] : 'mean';
    if (take === null) return [];
    const wish = { mean: quantity, amplitude: 'A', frequency: 'f' }[take];
    let key = wish;
    for (let n = 2; taken.has(key); n++) key = `${wish}${n}`;
    taken.add(key);
    return [{ kind: 'measured', key, quantity, take }];
  });
  const all = [...columns, ...measured];
  if (all.length === 0)
    throw new Failure(
      'invalid-request',
      'There is nothing to record: connect a sensor, or add a column for what you type.',
    );
  if (all.length > mostSpotColumns)
    throw new Failure(
      'invalid-request',
      `A series has at most ${mostSpotColumns} columns, not ${all.length}.`,
    );
  return all;
}

const takeNames: Record<SpotTake, (quantity: string) => string> = {
  mean: (quantity) => quantity,
  amplitude: (quantity) => `amplitude of ${quantity}`,
  frequency: (quantity) => `frequency of ${quantity}`,
};

/** The channels of a series: its columns that hold numbers, numbered one after the other. */
export function channelsOf(
  columns: readonly SpotColumn[],
  found: ReadonlyMap<string, Readable>,
): ChannelFields[] {
  const numbered = { timeUnit: '1', sampling: { kind: 'regular', start: 1, interval: 1 } } as const;
  return columns.flatMap((column): ChannelFields[] => {
    switch (column.kind) {
      case 'word':
        return [];
      case 'typed':
        return [
          channelOf({
            key: column.key,
            symbol: column.key,
            quantity: column.name,
            unit: ucumCode(parseUnit(column.unit)),
            ...numbered,
          }),
        ];
      case 'measured': {
        const fields = found.get(column.quantity)?.track.fields;
        if (fields === undefined) return [];
        const isMean = column.take === 'mean';
        return [
          {
            ...fields,
            ...numbered,
            key: column.key,
            symbol: isMean ? fields.symbol : column.key,
            quantity: takeNames[column.take](fields.quantity),
            unit: column.take === 'frequency' ? 'Hz' : fields.unit,
            low: isMean ? fields.low : null,
            high: isMean ? fields.high : null,
            // A reading knows its own uncertainty.
            noise: null,
            resolution: 0,
          },
        ];
      }
    }
  });
}
