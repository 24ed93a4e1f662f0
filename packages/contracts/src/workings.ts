import { z } from 'zod';
import { finite } from './basics';
import { type DocumentFormat, readDocument } from './documents';
import { entrySchema, seriesRefSchema } from './entrySchema';

/** How much a sheet can hold. */
export const mostOnSheet = {
  entries: 200,
  pages: 20,
  panels: 12,
  aside: 2000,
  ranges: 5000,
  shifts: 500,
  runs: 2000,
} as const;
/** How long a sheet may be as it is sent; the server reads some more. */
export const mostSheetBytes = 3_000_000;

const id = z.string().min(1).max(160);

const share = z.number().min(0).max(1);
const pixels = z.number().min(-5000).max(5000);

/** How the readings of a trace are drawn, where that was chosen. */
export const readingsLooks = ['points', 'line', 'both'] as const;
export type ReadingsLook = (typeof readingsLooks)[number];

/** One trace of a page: what it shows, how high it stands beside the others, and runs that are left out of it. */
export const panelSchema = z.object({
  id,
  series: z.array(seriesRefSchema).min(1).max(8),
  weight: z.number().min(0.1).max(10),
  without: z.array(z.string().max(40)).max(500),
  /** Its logarithmic axes. */
  logarithmic: z
    .array(z.enum(['left', 'right']))
    .max(2)
    .optional(),
  look: z.enum(readingsLooks).optional(),
  /** Where its legend was put, in shares of the room that is left beside it. */
  legend: z.object({ x: share, y: share }).optional(),
});
export type Panel = z.infer<typeof panelSchema>;

/** Words on a trace. `{v}` in them stands for what v is there, `{period of the swing}` for that result. */
export const labelSchema = z.object({
  id,
  /** The trace in which it stands. */
  panel: id,
  text: z.string().max(300),
  /** What it speaks of: a reading, known by its run and its place on the abscissa; a region; or nothing, at shares of the plot. */
  at: z.discriminatedUnion('kind', [
    z.object({
      kind: z.literal('point'),
      run: z.string().min(1).max(40),
      series: seriesRefSchema,
      x: finite,
    }),
    z.object({ kind: z.literal('region'), region: id }),
    z.object({ kind: z.literal('free'), x: share, y: share }),
  ]),
  /** From there to its middle, in pixels of the usual size, downwards. */
  offset: z.object({ x: pixels, y: pixels }),
});
export type Label = z.infer<typeof labelSchema>;

/** A page of traces that are stacked over one shared horizontal axis. */
export const pageSchema = z
  .object({
    id,
    name: z.string().max(80),
    /** What the shared horizontal axis shows. */
    horizontal: seriesRefSchema,
    /** Whether that is logarithmic; time is not. */
    logarithmic: z.literal(true).optional(),
    /** From the top. Empty: one for each channel. */
    panels: z.array(panelSchema).max(mostOnSheet.panels),
    labels: z.array(labelSchema).max(100),
  })
  .refine(({ panels }) => areApart(panels), 'every trace of a page needs an id of its own')
  .refine(({ labels }) => areApart(labels), 'every label of a page needs an id of its own');
export type Page = z.infer<typeof pageSchema>;

const areApart = (all: readonly { id: string }[]) => new Set(all.map((one) => one.id)).size === all.length;

const runId = z.string().min(1).max(40);
const index = z.number().int().nonnegative();

/** Readings of one channel of one run that a person has set aside, as ranges of their indices. */
export const asideSchema = z.object({
  run: runId,
  channel: z.string().min(1).max(160),
  ranges: z
    .array(z.tuple([index, index]))
    .max(mostOnSheet.ranges)
    .refine(
      (ranges) => ranges.every(([first, past], i) => past > first && (i === 0 || first > ranges[i - 1][1])),
      'ranges of readings ascend and lie apart',
    ),
});

/** How somebody looks at a run, where that is not as usual. */
export const runChoiceSchema = z.object({
  run: runId,
  /** It is not drawn, and nothing is said of it. */
  hidden: z.literal(true).optional(),
  /** Place in the row of colours and dashes; that of its number where nothing else was chosen. */
  style: z.number().int().min(0).max(7).optional(),
  /** Readings at a limit of their sensor, and wrong echoes, count in spite of it. */
  keepPinned: z.literal(true).optional(),
});
export type RunChoice = z.infer<typeof runChoiceSchema>;

/** The workings as they are stored: the entries, how their traces are laid out, and what was done to runs for them. */
export const workingsSchema = z
  .object({
    format: z.literal(6),
    entries: z.array(entrySchema).max(mostOnSheet.entries),
    pages: z.array(pageSchema).min(1).max(mostOnSheet.pages),
    aside: z.array(asideSchema).max(mostOnSheet.aside),
    /** By how much runs are moved along their abscissa, in its unit. */
    shifts: z.array(z.object({ run: runId, by: finite })).max(mostOnSheet.shifts),
    runs: z.array(runChoiceSchema).max(mostOnSheet.runs),
  })
  .refine(({ entries }) => areApart(entries), 'every entry needs an id of its own')
  .refine(({ pages }) => areApart(pages), 'every page needs an id of its own')
  .refine(({ runs }) => new Set(runs.map(({ run }) => run)).size === runs.length, 'every run has one look');
export type WorkingsDocument = z.infer<typeof workingsSchema>;

export const emptyPage: Page = { id: 'page-1', name: '', horizontal: 't', panels: [], labels: [] };

export const emptyWorkings: WorkingsDocument = {
  format: 6,
  entries: [],
  pages: [emptyPage],
  aside: [],
  shifts: [],
  runs: [],
};

/** A trace of one series, known by it. */
export const panelOf = (series: Panel['series'][number]): Panel => ({
  id: series,
  series: [series],
  weight: 1,
  without: [],
});

/** Workings that speak of other runs: of the copies of those that they spoke of. What speaks of no copy is left out. */
export function withRunsRenamed(
  workings: WorkingsDocument,
  renamed: ReadonlyMap<string, string>,
): WorkingsDocument {
  const ofCopies = <T extends { run: string }>(all: readonly T[]): T[] =>
    all.flatMap((one) => {
      const run = renamed.get(one.run);
      return run === undefined ? [] : [{ ...one, run }];
    });
  return {
    ...workings,
    entries: workings.entries.map((entry) =>
      entry.kind === 'region' && entry.own !== undefined ? { ...entry, own: ofCopies(entry.own) } : entry,
    ),
    aside: ofCopies(workings.aside),
    shifts: ofCopies(workings.shifts),
    runs: ofCopies(workings.runs),
    pages: workings.pages.map((page) => ({
      ...page,
      panels: page.panels.map((panel) => ({
        ...panel,
        without: panel.without.flatMap((run) => renamed.get(run) ?? []),
      })),
      labels: page.labels.flatMap((label): Label[] => {
        if (label.at.kind !== 'point') return [label];
        const run = renamed.get(label.at.run);
        return run === undefined ? [] : [{ ...label, at: { ...label.at, run } }];
      }),
    })),
  };
}

/** References of format 1 called an entry a line. */
const renamedReferences = (value: unknown): unknown => {
  if (typeof value === 'string') return value.replace(/^line:/, 'entry:');
  if (Array.isArray(value)) return value.map(renamedReferences);
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(
      Object.entries(value).map(([key, inner]) => [key, key === 'name' ? inner : renamedReferences(inner)]),
    );
  return value;
};

export const workingsFormat: DocumentFormat<WorkingsDocument> = {
  title: 'workings',
  isMany: true,
  format: 6,
  schema: workingsSchema,
  steps: [
    ({ lines, ...rest }) => ({
      ...(renamedReferences(rest) as Record<string, unknown>),
      entries: renamedReferences(lines),
    }),
    ({ horizontal, traces, ...rest }) => ({
      ...rest,
      aside: [],
      shifts: [],
      pages: [
        {
          ...emptyPage,
          horizontal,
          panels: [...new Set(traces as Panel['series'])].map(panelOf),
        },
      ],
    }),
    ({ pages, ...rest }) => ({
      ...rest,
      pages: (pages as Record<string, unknown>[]).map((page) => ({ ...page, labels: [] })),
    }),
    // Format 5 knows formulas and more fields; what is missing gets its usual value by the schema.
    (workings) => workings,
    // How runs are looked at was stored with the runs themselves.
    ({ runs = [], ...rest }) => ({ ...rest, runs }),
  ],
};

/** Stored workings of any known format in today's form. @throws UnreadableDocument */
export const readWorkings = (stored: unknown): WorkingsDocument => readDocument(workingsFormat, stored);
