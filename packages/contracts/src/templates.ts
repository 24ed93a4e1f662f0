import { z } from 'zod';
import { idSchema, nameSchema, plainText } from './basics';
import { conditionColumnSchema } from './conditions';
import { emptyGuide, guideSchema } from './guide';
import { knownChannelSchema } from './knownChannels';
import { type TrialsDocument, emptyTrials, trialsSchema } from './trials';
import { type WorkingsDocument, workingsSchema } from './workings';

const about = plainText.pipe(z.string().max(300, 'what a template is for has 300 letters at most'));

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
  /** What leads through it, with what is right. */
  guide: guideSchema.default(emptyGuide),
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
