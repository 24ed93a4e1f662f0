import { z } from 'zod';
import { finite, plainText } from './basics';
import { keySchema } from './link';

/** More columns or readings than this no series of spot readings has. */
export const mostSpotColumns = 24;
export const mostSpotRows = 2000;

const columnKey = z
  .string()
  .min(1)
  .max(16)
  // Cells are looked up by it.
  .refine((key) => !(key in Object.prototype), 'a column cannot be called like that');
const columnName = plainText
  .transform((text) => text.trim())
  .pipe(z.string().min(1, 'a column needs a name').max(40, 'a column’s name has 40 letters at most'));
const unit = plainText.pipe(z.string().max(40));

/** A number that is typed for every reading. */
const typedColumnSchema = z.object({
  kind: z.literal('typed'),
  key: columnKey,
  name: columnName,
  /** UCUM code. */
  unit,
  /** Taken off every typed number, in the same unit: a rule that begins elsewhere, a sensing point behind the tip. */
  offset: finite,
  /** What of a device is set to the typed number before the reading is taken. */
  output: z.object({ code: z.string().max(20), key: keySchema }).nullable(),
});
const wordColumnSchema = z.object({ kind: z.literal('word'), key: columnKey, name: columnName });

export const spotTakes = ['mean', 'amplitude', 'frequency'] as const;
/** What is read of a quantity: its mean, or the amplitude or the frequency of its swing. */
export type SpotTake = (typeof spotTakes)[number];

const measuredColumnSchema = z.object({
  kind: z.literal('measured'),
  key: columnKey,
  /** Key of the quantity in the plan. */
  quantity: columnKey,
  take: z.enum(spotTakes),
});

/** What a person gives for each reading. */
export const givenColumnSchema = z.discriminatedUnion('kind', [typedColumnSchema, wordColumnSchema]);
export type GivenColumn = z.infer<typeof givenColumnSchema>;
export const spotColumnSchema = z.discriminatedUnion('kind', [
  typedColumnSchema,
  wordColumnSchema,
  measuredColumnSchema,
]);
export type SpotColumn = z.infer<typeof spotColumnSchema>;

const areUnlike = (columns: readonly { key: string }[]) =>
  new Set(columns.map(({ key }) => key)).size === columns.length;
export const givenColumnsSchema = z
  .array(givenColumnSchema)
  .max(12, 'at most 12 columns to be typed')
  .refine(areUnlike, 'every column needs a key of its own');

/** How spot readings are taken. */
export const spotPlanSchema = z.object({
  /** How long is listened for one reading. */
  seconds: finite.min(0.1, 'a reading takes at least 0.1 s').max(60, 'a reading takes at most 60 s'),
  /** How long is waited after an output was set. */
  settleSeconds: finite.min(0, 'a wait is not negative').max(600, 'a wait lasts at most 10 minutes'),
  columns: givenColumnsSchema,
  /** By quantity; the mean of one that is not named, nothing of one that is null. */
  takes: z.record(columnKey, z.enum(spotTakes).nullable()),
});
export type SpotPlan = z.infer<typeof spotPlanSchema>;

export const usualSpotPlan: SpotPlan = { seconds: 1, settleSeconds: 4, columns: [], takes: {} };

/** What a person has given. */
export const givenCellSchema = z.union([
  z.object({ typed: finite }).strict(),
  z.object({ word: plainText.pipe(z.string().max(80, 'a word has 80 letters at most')) }).strict(),
]);
export type GivenCell = z.infer<typeof givenCellSchema>;
export const givenCellsSchema = z.record(columnKey, givenCellSchema);
export type GivenCells = z.infer<typeof givenCellsSchema>;

/** What was read: the value in the unit of its channel, its standard uncertainty, and what it comes from. */
export const measuredCellSchema = z.object({
  value: finite,
  u: finite.nullable(),
  /** Standard deviation of the readings, and how many they were. */
  spread: finite,
  count: z.number().int(),
  /** A reading stood at a limit of the sensor: it is no measurement. */
  pinned: z.boolean(),
});
export type MeasuredCell = z.infer<typeof measuredCellSchema>;

export const spotCellSchema = z.union([givenCellSchema, measuredCellSchema]);
export type SpotCell = z.infer<typeof spotCellSchema>;

export const spotRowSchema = z.object({
  id: z.number().int(),
  at: z.string(),
  cells: z.record(columnKey, spotCellSchema),
  removed: z.boolean(),
});
export type SpotRow = z.infer<typeof spotRowSchema>;

/** The readings of a run that was taken one by one; its channels are the columns that hold numbers, in their order. */
export const spotSchema = z.object({
  seconds: finite,
  columns: z.array(spotColumnSchema),
  rows: z.array(spotRowSchema),
});
export type Spot = z.infer<typeof spotSchema>;

/** The number in a cell as it counts: a typed one without the offset of its column; NaN where there is none. */
export function numberIn(column: SpotColumn, { cells }: Pick<SpotRow, 'cells'>): number {
  const cell = cells[column.key];
  if (cell === undefined || 'word' in cell) return NaN;
  if ('typed' in cell) return cell.typed - (column.kind === 'typed' ? column.offset : 0);
  return cell.value;
}

/**
 * The readings that count, in the order of their first typed number; what has none comes last, as it was taken. A series in
 * which no number is typed stays as it was taken.
 */
export function sortedRows(spot: Pick<Spot, 'columns' | 'rows'>): SpotRow[] {
  const by = spot.columns.find(({ kind }) => kind === 'typed');
  const rows = spot.rows.filter(({ removed }) => !removed);
  if (by === undefined) return rows;
  const place = (row: SpotRow) => {
    const number = numberIn(by, row);
    return Number.isNaN(number) ? Infinity : number;
  };
  return [...rows].sort((a, b) => {
    const [x, y] = [place(a), place(b)];
    return x === y ? a.id - b.id : x - y;
  });
}

const run = z.uuid().nullable();

export const takeSpotSchema = z
  .object({
    /** The series that it belongs to; null begins a new one. */
    run,
    cells: givenCellsSchema,
    /** Taken although it moves. */
    anyway: z.boolean().default(false),
  })
  .strict();
export const retakeSpotSchema = z.object({ anyway: z.boolean().default(false) }).strict();
export const addSpotsSchema = z
  .object({ run, rows: z.array(givenCellsSchema).min(1).max(mostSpotRows) })
  .strict();
export const spotPatchSchema = z.object({ cells: givenCellsSchema, removed: z.boolean() }).partial().strict();
export type SpotPatch = z.infer<typeof spotPatchSchema>;
export const spotColumnsSchema = z.object({ columns: givenColumnsSchema }).strict();

/** A row of readings while an output is stepped from one end to the other, then more finely about the largest one. */
export const sweepSchema = z
  .object({
    run,
    /** Key of the typed column whose output is stepped. */
    column: columnKey,
    from: finite,
    to: finite,
    step: finite.positive('a step is more than 0'),
    /** The finest step about the peak; the coarse one where it is not to be finer. */
    finest: finite.positive('a step is more than 0'),
    cells: givenCellsSchema,
  })
  .strict();
export type Sweep = z.infer<typeof sweepSchema>;

/** What is being read just now. */
export const spotStatusSchema = z.discriminatedUnion('phase', [
  z.object({ phase: z.literal('idle') }),
  z.object({ phase: z.literal('taking'), seconds: finite }),
  z.object({
    phase: z.literal('sweeping'),
    doing: z.enum(['settling', 'reading']),
    /** The value that is set, in the unit of its column. */
    value: finite,
    unit: z.string(),
    taken: z.number().int(),
    /** How many there are to be as far as is known. */
    planned: z.number().int(),
  }),
]);
export type SpotStatus = z.infer<typeof spotStatusSchema>;
