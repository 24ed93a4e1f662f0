import { type ChannelData, type Condition, parseUnit, regular } from '@heuristor/core';
import { type Experiment } from './experiment';
import { type DemoRun, type DemoSpots, readingsOf, spotsOf } from './record';

/** What a run of the demo holds, as an evaluation takes it. */
export function channelsOf(run: DemoRun | DemoSpots): ChannelData[] {
  const common = (one: ReturnType<typeof readingsOf>[number]['channel']) => ({
    key: one.key,
    symbol: one.symbol,
    quantity: one.quantity,
    unit: parseUnit(one.unit),
    timeUnit: parseUnit(one.timeUnit),
    low: one.low,
    high: one.high,
    noise: one.noise,
  });
  if ('typed' in run) {
    const { channels, rows } = spotsOf(run);
    return channels.map((channel): ChannelData => {
      const cells = rows.map((row) => row[channel.key]);
      const numbers = cells.map((cell) =>
        'typed' in cell ? cell.typed : 'value' in cell ? cell.value : NaN,
      );
      const doubts = cells.map((cell) => ('u' in cell ? (cell.u ?? NaN) : NaN));
      return {
        ...common(channel),
        sampling: regular(1, 1, numbers.length),
        values: Float64Array.from(numbers),
        ...(doubts.every(Number.isNaN) ? {} : { uncertainties: Float64Array.from(doubts) }),
      };
    });
  }
  return readingsOf(run).map(({ channel, values, times }): ChannelData => ({
    ...common(channel),
    sampling:
      times === null
        ? regular(
            0,
            1 / (run.streams.find(({ code }) => code === channel.deviceCode)?.rate ?? 1),
            values.length,
          )
        : { kind: 'events', times, states: Uint8Array.from(values), resolution: 1e-5 },
    values,
  }));
}

/** What is said of a run, as an evaluation takes it. */
export function conditionsOf(run: DemoRun | DemoSpots, { conditions }: Experiment): Condition[] {
  const about = 'typed' in run ? {} : (run.conditions ?? {});
  return conditions.flatMap(({ key, name, unit }) => {
    const value = about[key];
    return value !== undefined && 'value' in value
      ? [{ name, unit, value: value.value, uncertainty: value.u }]
      : [];
  });
}
