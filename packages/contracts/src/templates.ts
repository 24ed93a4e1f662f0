import { z } from 'zod';
import { idSchema, nameSchema, plainText } from './basics';
import { type ChannelFields } from './channels';
import { conditionColumnSchema } from './conditions';
import { type TrialsDocument, emptyTrials, trialsSchema } from './trials';
import { type WorkingsDocument, workingsSchema } from './workings';

const about = plainText.pipe(z.string().max(300, 'what a template is for has 300 letters at most'));

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
  /** Tables over its runs, with what is concluded from them. */
  trials: trialsSchema.default(emptyTrials),
});
export type Template = z.infer<typeof templateSchema>;

export const newTemplateSchema = templateSchema.omit({ id: true }).strict();
export type NewTemplate = z.infer<typeof newTemplateSchema>;

/** Without what belongs to single runs: it would mean nothing over others. */
export const withoutRuns = (workings: WorkingsDocument): WorkingsDocument => ({
  ...workings,
  aside: [],
  shifts: [],
  runs: [],
  entries: workings.entries.map((entry) => (entry.kind === 'region' ? { ...entry, own: [] } : entry)),
  pages: workings.pages.map((page) => ({
    ...page,
    panels: page.panels.map((panel) => ({ ...panel, without: [] })),
    labels: page.labels.filter(({ at }) => at.kind !== 'point'),
  })),
});

/** Tables without what belongs to single runs, or to one class: rows that were typed or left out, and labels at points. What is planned stays. */
export const trialsWithoutRuns = (trials: TrialsDocument): TrialsDocument => ({
  ...trials,
  tables: trials.tables.map((table) => ({
    ...table,
    typed: [],
    leftOut: [],
    only: null,
    sheet: {
      ...table.sheet,
      pages: table.sheet.pages.map((page) => ({
        ...page,
        labels: page.labels.filter(({ at }) => at.kind !== 'point'),
      })),
    },
  })),
});
