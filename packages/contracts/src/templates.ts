import { z } from 'zod';
import { idSchema, nameSchema, plainText } from './basics';
import { type ChannelFields } from './channels';
import { conditionColumnSchema } from './conditions';
import { type WorkingsDocument, workingsSchema } from './workings';

const about = plainText.pipe(z.string().max(300, 'what a template is for has 300 letters at most'));

/** A channel that a template speaks of: by what it measures another one is found for it. */
export const knownChannelSchema = z.object({
  key: z.string().min(1).max(160),
  quantity: z.string().max(80),
  unit: z.string().max(60),
  /** Whether its zero was taken in every run of the sheet that the template was made of. */
  zeroed: z.boolean().optional(),
});

export type KnownChannelOfTemplate = z.infer<typeof knownChannelSchema>;

/** Whether the zero of a channel was taken for its run. */
export const isZeroed = ({ applied }: Pick<ChannelFields, 'applied'>): boolean =>
  applied !== null && (applied.zero !== null || applied.zeroedAtStart);

/** Every channel of several runs, each once. */
export function knownChannels(
  channels: readonly Pick<ChannelFields, 'key' | 'quantity' | 'unit' | 'applied'>[],
): KnownChannelOfTemplate[] {
  const known = new Map<string, KnownChannelOfTemplate>();
  for (const channel of channels) {
    const { key, quantity, unit } = channel;
    const { zeroed = true, ...first } = known.get(key) ?? { key, quantity, unit };
    known.set(key, { ...first, zeroed: zeroed && isZeroed(channel) });
  }
  return [...known.values()];
}

/** A sheet that is kept to be used over other runs. */
export const templateSchema = z.object({
  id: idSchema,
  name: nameSchema,
  /** What it is for, in a sentence. */
  about,
  channels: z.array(knownChannelSchema).max(64),
  /** What is to be said of each run. */
  conditions: z.array(conditionColumnSchema).max(12),
  workings: workingsSchema,
});
export type Template = z.infer<typeof templateSchema>;

export const newTemplateSchema = templateSchema.omit({ id: true }).strict();
export type NewTemplate = z.infer<typeof newTemplateSchema>;

/** Without what belongs to single runs: it would mean nothing over others. */
export const withoutRuns = (workings: WorkingsDocument): WorkingsDocument => ({
  ...workings,
  aside: [],
  shifts: [],
  entries: workings.entries.map((entry) => (entry.kind === 'region' ? { ...entry, own: [] } : entry)),
  pages: workings.pages.map((page) => ({
    ...page,
    panels: page.panels.map((panel) => ({ ...panel, without: [] })),
    labels: page.labels.filter(({ at }) => at.kind !== 'point'),
  })),
});
