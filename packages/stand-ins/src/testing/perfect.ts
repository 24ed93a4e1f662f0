import { type ControlAction } from '@heuristor/contracts';
import { type Rig } from '../devices/device';
import { simulate } from '../simulate';

export const set = (rig: Rig, key: string, value: number) =>
  rig.apparatus.control({ action: 'set', key, value });

/** The true values behind a channel of a rig, at the moments at which a perfect sensor would look. */
export function truth(
  rig: Rig,
  key: string,
  { rate, count, from = 0 }: { rate: number; count: number; from?: number },
  at: readonly (readonly [number, ControlAction])[] = [],
): number[] {
  for (const { code, streams } of rig.devices)
    for (const stream of streams) {
      if (stream.sampling !== 'regular') continue;
      const found = stream.channels.find(({ channel }) => channel.key === key);
      if (found === undefined) continue;
      const [range] = found.channel.ranges;
      const perfect = {
        ...found,
        flaws: {},
        channel: {
          ...found.channel,
          ranges: [{ ...range, low: -1e9, high: 1e9, noise: 0, resolution: 0 }],
        },
      };
      const twin: Rig = {
        apparatus: rig.apparatus,
        devices: [{ code, model: '', streams: [{ ...stream, channels: [perfect] }] }],
      };
      const acts = at.map(([when, action]) => [when, () => rig.apparatus.control(action)] as const);
      return [...simulate(twin, { code, stream: stream.key, rate, count, from }, acts).values];
    }
  throw new Error(`no channel ${key}`);
}

export const doing = (key: string): ControlAction => ({ action: 'do', key });
export const letGo: ControlAction = { action: 'release' };
