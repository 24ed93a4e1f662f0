import { type Level } from '@heuristor/contracts';
import { type Source, type TrackPlan } from '../recorder/track';

/** A position that is recorded as it is sent. */
export const track = (key: string, changes: Partial<TrackPlan> = {}): TrackPlan => ({
  channelKey: key,
  channel: 0,
  scale: 1,
  offset: 0,
  still: null,
  fields: {
    key,
    symbol: key,
    quantity: 'position',
    unit: 'm',
    timeUnit: 's',
    low: -6,
    high: 6,
    noise: 0.0003,
    resolution: 0,
    edges: null,
    deviceCode: 'K7-D',
    applied: null,
  },
  ...changes,
});

/** A sensor that reads 50 times a second, and began to at 1000 ms of the server's clock. */
export const source = (changes: Partial<Source> = {}): Source => ({
  code: 'K7-D',
  stream: 1,
  rate: 50,
  sampling: 'regular',
  epoch: 1000,
  tracks: [track('x')],
  ...changes,
});

/** A level that x rises through. */
export const through = (value: number, changes: Partial<Level> = {}): Level => ({
  quantity: 'x',
  of: 'reading',
  direction: 'rise',
  value,
  unit: 'm',
  ...changes,
});
