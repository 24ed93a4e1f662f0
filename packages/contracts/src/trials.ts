import { z } from 'zod';
import { finite, plainText } from './basics';
import { conditionValueSchema } from './conditions';
import { type DocumentFormat } from './documents';
import { entrySchema, seriesRefSchema } from './entrySchema';
import { mostAcross } from './outcomes';
import { emptyPage, mostOnSheet, pageSchema } from './workings';

/** How much the trials of an investigation can hold. */
export const mostInTrials = { tables: 20, columns: 40, typedRows: 10_000, leftOut: 5000 } as const;

const key = z
  .string()
  .min(1)
  .max(40)
  // Cells are looked up by it.
  .refine((text) => !(text in Object.prototype), 'a column cannot be called like that');
const name = plainText.pipe(z.string().max(60, 'a name has 60 letters at most'));
const unit = plainText.pipe(z.string().max(40));

const columnFields = {
  key,
  /** What it is called; '' where it is called after what it shows. */
  name,
  /** UCUM code of the unit in which it is shown; '' for that of what it shows. */
  unit,
  hidden: z.boolean(),
};

export const runFields = ['number', 'name', 'group', 'date', 'note'] as const;
export type RunField = (typeof runFields)[number];

/** A column of a table of trials. */
export const trialColumnSchema = z.discriminatedUnion('kind', [
  /** A result of the workings: which entry, and which of its results. */
  z.object({
    ...columnFields,
    kind: z.literal('result'),
    entry: z.string().max(160),
    field: z.string().max(80),
  }),
  /** A condition, by its key in the plan. */
  z.object({ ...columnFields, kind: z.literal('condition'), condition: z.string().max(20) }),
  /** Something that is known of every run. */
  z.object({ ...columnFields, kind: z.literal('run'), of: z.enum(runFields) }),
  /** The values of a series of single measurements, where these are the rows. */
  z.object({ ...columnFields, kind: z.literal('value'), of: seriesRefSchema }),
  /** Worked out from other columns, constants and results, row by row. */
  z.object({
    ...columnFields,
    kind: z.literal('formula'),
    formula: plainText.pipe(z.string().max(500, 'a formula has 500 letters at most')),
  }),
]);
export type TrialColumn = z.infer<typeof trialColumnSchema>;

/** What was typed into a cell: a word, or a number with the unit (UCUM) that its column had then. */
export const typedCellSchema = z.union([
  z
    .object({
      value: finite,
      u: finite.nonnegative('an uncertainty is not negative').nullable(),
      unit: z.string().max(40),
    })
    .strict(),
  z.object({ word: plainText.pipe(z.string().max(80)) }).strict(),
]);
export type TypedCell = z.infer<typeof typedCellSchema>;

/** A row that was typed: the values of another group, or of a book. */
export const typedRowSchema = z.object({
  id: z.string().min(1).max(40),
  name,
  /** By the keys of the columns. */
  cells: z.record(key, typedCellSchema),
});
export type TypedRow = z.infer<typeof typedRowSchema>;

/** A row that is planned: what is to be changed, before anybody has recorded it. A run says which one it fills. */
export const plannedRowSchema = z.object({
  id: z.string().min(1).max(40),
  /** By the keys of the conditions. */
  conditions: z.record(z.string().max(20), conditionValueSchema),
});
export type PlannedRow = z.infer<typeof plannedRowSchema>;

export const summaryKeys = [
  'mean',
  'standardDeviation',
  'standardError',
  'weightedMean',
  'chiSquared',
  'minimum',
  'maximum',
  'range',
] as const;
export type SummaryKey = (typeof summaryKeys)[number];

/** What is a row. */
export const rowsSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('runs') }),
  /** Each value of a series of single measurements, such as a pass or a spot reading. */
  z.object({ kind: z.literal('values'), of: seriesRefSchema }),
  /** So many values of a constant of the workings, evenly between two ends, each of them for every run. */
  z.object({
    kind: z.literal('constant'),
    entry: z.string().max(160),
    /** As they are typed: “0.2 to 0.4”; '' for those of its slider. */
    ends: plainText.pipe(z.string().max(60)),
    count: z.number().int().min(2).max(mostAcross.values),
  }),
]);

/** Where a column is at most, or at least, so much; drawn under the points as a span. */
export const holdsSchema = z.object({
  column: key,
  is: z.enum(['atMost', 'atLeast']),
  level: finite,
  /** UCUM code of the unit in which the level was typed: it means the same where the column is shown in another. */
  unit: z.string().max(40),
});
export type HoldsWhere = z.infer<typeof holdsSchema>;

export const trialPlotSchema = z.object({
  kind: z.enum(['points', 'bars', 'spread']),
  /** Bars: what they are of, what stands under each, and what tells those side by side from one another. Keys of columns. */
  value: key.nullable(),
  category: key.nullable(),
  beside: key.nullable(),
  /** Points: the column by whose words they are drawn, and fitted, apart. */
  apart: key.nullable().default(null),
  /** Points: the column that stands beside each. */
  names: key.nullable().default(null),
  /** Points: a condition, where it holds. */
  holds: holdsSchema.nullable().default(null),
  /** Spread: what stands with the values. */
  spread: z.enum(['sd', 'box', 'histogram']).default('sd'),
});
export type TrialPlot = z.infer<typeof trialPlotSchema>;

const apart = (all: readonly { id: string }[]) => new Set(all.map(({ id }) => id)).size === all.length;

/** A table over runs, with a sheet of entries of its own, whose channels are the columns. */
export const trialTableSchema = z
  .object({
    id: z.string().min(1).max(40),
    name,
    rows: rowsSchema,
    columns: z.array(trialColumnSchema).max(mostInTrials.columns),
    typed: z.array(typedRowSchema).max(mostInTrials.typedRows),
    planned: z.array(plannedRowSchema).max(1000),
    /** Rows that do not count, and why. */
    leftOut: z
      .array(z.object({ row: z.string().max(60), why: plainText.pipe(z.string().max(200)) }))
      .max(mostInTrials.leftOut),
    sort: z.object({ column: key, isDown: z.boolean() }).nullable(),
    /** Only rows that have one of these words in a column. */
    only: z.object({ column: key, words: z.array(z.string().max(200)).max(200) }).nullable(),
    /** The column by whose words rows are summed up and drawn apart; null for all together. */
    groupBy: key.nullable(),
    /** What stands under the table. */
    summary: z.array(z.enum(summaryKeys)),
    plot: trialPlotSchema,
    /** The form of workings (format 6), without what belongs to runs. */
    sheet: z.object({
      entries: z.array(entrySchema).max(mostOnSheet.entries),
      pages: z.array(pageSchema).min(1).max(mostOnSheet.pages),
    }),
  })
  .refine(
    ({ columns }) => new Set(columns.map((column) => column.key)).size === columns.length,
    'every column needs a key of its own',
  )
  .refine(({ typed, planned }) => apart([...typed, ...planned]), 'every row needs an id of its own')
  .refine(({ sheet }) => apart(sheet.entries), 'every entry needs an id of its own');
export type TrialTable = z.infer<typeof trialTableSchema>;

/** The trials of an investigation: its tables, in their order. */
export const trialsSchema = z
  .object({ format: z.literal(1), tables: z.array(trialTableSchema).max(mostInTrials.tables) })
  .refine(({ tables }) => apart(tables), 'every table needs an id of its own');
export type TrialsDocument = z.infer<typeof trialsSchema>;

export const emptyTrials: TrialsDocument = { format: 1, tables: [] };

export const emptyTable: Omit<TrialTable, 'id'> = {
  name: '',
  rows: { kind: 'runs' },
  columns: [],
  typed: [],
  planned: [],
  leftOut: [],
  sort: null,
  only: null,
  groupBy: null,
  summary: ['mean', 'standardDeviation'],
  plot: {
    kind: 'points',
    value: null,
    category: null,
    beside: null,
    apart: null,
    names: null,
    holds: null,
    spread: 'sd',
  },
  sheet: { entries: [], pages: [emptyPage] },
};

export const trialsFormat: DocumentFormat<TrialsDocument> = {
  title: 'trials',
  isMany: true,
  format: 1,
  schema: trialsSchema,
  steps: [],
};

/** Trials over copies of runs; what speaks of a run without a copy is left out. */
export const trialsOverCopies = (
  trials: TrialsDocument,
  copies: ReadonlyMap<string, string>,
): TrialsDocument => ({
  ...trials,
  tables: trials.tables.map((table) => ({
    ...table,
    leftOut: table.leftOut.flatMap(({ row, why }) => {
      const isOfTable = table.typed.some(({ id }) => id === row);
      const [run, ...rest] = row.split('/');
      const copied = copies.get(run);
      const copy = isOfTable ? row : copied === undefined ? undefined : [copied, ...rest].join('/');
      return copy === undefined ? [] : [{ row: copy, why }];
    }),
  })),
});
