import { type Device, type Stage } from '@heuristor/contracts';
import { type LinkedDevice, sendsAgain } from '../link/device';

/** So many readings a second are enough for cards and threads. */
const mostLive = 500;

/** Of a stream that is fast, only every so-many-th reading goes to the cards. */
export const strideOf = (rate: number): number => Math.max(Math.ceil(rate / mostLive), 1);

/** How the sensors of a stand-in err is asked for by whoever wants to set it, and not sent to everybody. */
const stageOf = ({ apparatus, title, controls }: Stage): Stage => ({ apparatus, title, controls });

/** A device as screens see it. */
export function presentDevice(device: LinkedDevice): Device {
  const { code, use, present, waiting, calibration, description } = device;
  const { model, state, outputs } = description;
  const stage = description.stage === null ? null : stageOf(description.stage);
  return {
    code,
    model,
    use: use === null ? null : { investigation: use.investigation, name: use.name },
    present,
    sendsAgain: sendsAgain(description),
    waiting,
    battery: state.battery,
    signal: state.signal,
    remark: state.remark,
    drift:
      device.streams.map(({ sending }) => sending?.clock.drift ?? null).find((drift) => drift !== null) ??
      null,
    streams: device.streams.map((stream) => {
      const { sampling, rates, key, channels } = stream.description;
      return {
        key,
        handle: stream.handle,
        sampling,
        edges: stream.description.edges ?? null,
        states: stream.edges.states,
        rates,
        rate: stream.rate,
        liveRate: stream.rate / (sampling === 'regular' ? strideOf(stream.rate) : 1),
        channels: stream.views.map(({ range, ...view }, i) => ({
          ...view,
          range: range.key,
          own: { quantity: channels[i].quantity, symbol: channels[i].symbol, unit: channels[i].unit },
          ranges: channels[i].ranges.map(({ key: name, label, low, high, noise }) => ({
            key: name,
            label,
            low,
            high,
            noise,
          })),
        })),
      };
    }),
    numbers: description.numbers.map((number) => ({
      ...number,
      value: calibration.numbers[number.key] ?? number.value,
    })),
    outputs,
    calibration,
    stage,
    away: device.away,
  };
}
