import { regular } from '../series/sampling';
import { parseUnit } from '../units/unit';
import { type EntryOfKind } from '../workings/entries';
import { type ChannelData } from '../workings/run';

/** A constant of that name, known by its name too. */
export const constantEntry = (
  name: string,
  value: number,
  uncertainty: number,
  unit: string,
  id = name,
): EntryOfKind<'constant'> => ({
  kind: 'constant',
  id,
  name,
  value,
  uncertainty,
  unit,
  source: '',
  ends: '',
  shift: 0,
});

/** A channel that is sampled in time, from 0 s on, without limits and without a word on its noise. */
export const channelOf = (
  key: string,
  unit: string,
  values: Float64Array,
  interval: number,
  timeUnit = 's',
): ChannelData => ({
  key,
  symbol: key,
  quantity: key === 'x' ? 'position' : key,
  unit: parseUnit(unit),
  timeUnit: parseUnit(timeUnit),
  sampling: regular(0, interval, values.length),
  values,
  low: null,
  high: null,
  noise: null,
});
