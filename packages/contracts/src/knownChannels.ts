import { z } from 'zod';
import { type ChannelFields } from './channels';

/** A channel that a template speaks of: by what it measures another one is found for it. */
export const knownChannelSchema = z.object({
  key: z.string().min(1).max(160),
  quantity: z.string().max(80),
  unit: z.string().max(60),
  /** Whether its zero was taken in every run of the sheet that the template was made of. */
  zeroed: z.boolean().optional(),
  /** Whether its readings were taken in time, and not numbered as those of a table are; absent where there were both. */
  timed: z.boolean().optional(),
});

export type KnownChannelOfTemplate = z.infer<typeof knownChannelSchema>;

/** Whether the zero of a channel was taken for its run. */
export const isZeroed = ({ applied }: Pick<ChannelFields, 'applied'>): boolean =>
  applied !== null && (applied.zero !== null || applied.zeroedAtStart);

/** Whether the readings of a channel were taken in time; those of a table are numbered. */
const isTimed = ({ timeUnit }: Pick<ChannelFields, 'timeUnit'>) => timeUnit !== '' && timeUnit !== '1';

/** Every channel of several runs, each once. */
export function knownChannels(
  channels: readonly Pick<ChannelFields, 'key' | 'quantity' | 'unit' | 'timeUnit' | 'applied'>[],
): KnownChannelOfTemplate[] {
  const known = new Map<string, KnownChannelOfTemplate>();
  const ways = new Map<string, Set<boolean>>();
  for (const channel of channels) {
    const { key, quantity, unit } = channel;
    const { zeroed = true, ...first } = known.get(key) ?? { key, quantity, unit };
    known.set(key, { ...first, zeroed: zeroed && isZeroed(channel) });
    ways.set(key, (ways.get(key) ?? new Set()).add(isTimed(channel)));
  }
  return [...known.values()].map((channel) => {
    const [timed, ...others] = ways.get(channel.key) ?? [];
    return others.length > 0 ? channel : { ...channel, timed };
  });
}
