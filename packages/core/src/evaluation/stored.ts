import { Refusal, orRefusal } from '../refusal';
import { type Influence } from '../results/quantity';
import { productsOfSpans } from '../series/spanProducts';
import { type WeightSpan } from '../series/noisePath';
import { type Series, sharedAt } from '../series/series';
import { ucumCode } from '../units/unit';
import { type Workings, regionOfEntry } from '../workings/entries';
import { type NamedResult, type Outcome } from '../workings/outcome';
import { togetherOf } from './together';
import { type SeriesRef, eachRef, entryRef } from '../workings/references';

// What the workings say of a run, in plain numbers that can be stored and sent. A result is uncertain by roots. Those that other
// runs may share (a constant, a zero, a calibration, a length, a condition) are kept with how far one standard deviation of each
// moves the result, so that results of several runs keep their covariance. What it owes to the readings of its own run is kept as
// covariances with the other results of that run: thousands of weights would say no more.

/** One result. What it is called may change; entry, region and field say which one it is. */
export interface StoredResult {
  /** Which of the sheets that were evaluated together. */
  sheet: number;
  entry: string;
  /** The region that it is worked out on; null where that is the whole run, or none. */
  region: string | null;
  field: string;
  name: string;
  value: StoredNumber;
  /** UCUM code. */
  unit: string;
  standardUncertainty: StoredNumber | null;
  /** Null where the uncertainty was given, which is as good as infinitely many. */
  degreesOfFreedom: StoredNumber | null;
  roundTo: StoredNumber | null;
  main: boolean;
}

/** A number as JSON can hold it. */
export type StoredNumber = number | 'NaN' | 'Infinity' | '-Infinity';

/** A root that runs may share: by how much one standard deviation of it moves which results. */
export interface SharedRoot {
  root: string;
  label: string;
  moves: [result: number, by: StoredNumber][];
}

/** A root that belongs to the run, such as the readings of one of its channels, and the covariances that it gives to results. */
export interface OwnRoot {
  root: string;
  label: string;
  /** Which results it moves. */
  results: number[];
  /** Their covariances, the lower triangle row by row. */
  covariance: StoredNumber[];
}

/** What an entry says beside its results. */
export type StoredOutcome =
  | { kind: 'refused'; sentence: string; lacks?: string; isFault?: true }
  | { kind: 'region'; start: StoredNumber; end: StoredNumber; notes: string[] }
  | { kind: 'series'; symbol: string; quantity: string; unit: string; count: number; notes: string[] }
  | { kind: 'results'; notes: string[] };

/** A series each of whose values is a measurement of its own: passes through a gate, spot readings. */
export interface StoredRepeats {
  sheet: number;
  of: SeriesRef;
  symbol: string;
  unit: string;
  values: StoredNumber[];
  /** Standard uncertainty of each; NaN where it is not known one by one. */
  uncertainties: StoredNumber[];
  /** What several of them owe to one source, and how far one standard deviation of it moves each. */
  together: { root: string; label: string; effects: StoredNumber[] }[];
}

export interface StoredEvaluation {
  runId: string;
  /** What the entries of each sheet say, by their ids. */
  sheets: Record<string, StoredOutcome>[];
  results: StoredResult[];
  shared: SharedRoot[];
  own: OwnRoot[];
  /** Values that a table can have as rows. */
  repeats: StoredRepeats[];
}

/** A sheet with what it says of the run. */
export interface Evaluated {
  workings: Workings;
  outcomes: ReadonlyMap<string, Outcome>;
  /** Channels of the run whose values are measurements of their own. */
  channels?: ReadonlyMap<SeriesRef, Series>;
}

export const storedNumber = (value: number): StoredNumber =>
  Number.isFinite(value) ? value : (String(value) as StoredNumber);

/**
 * What sheets say of one run, in a form that can be stored and sent. Sheets of several people over one run are given together, so
 * that what their results owe to the same readings is known.
 */
export function storedEvaluation(runId: string, sheets: readonly Evaluated[]): StoredEvaluation {
  const results: StoredResult[] = [];
  const effects = new Map<string, { label: string; moves: { result: number; effect: WeightSpan }[] }>();
  const take = (result: number, { root, label, effect }: Influence) => {
    const known = effects.get(root) ?? { label, moves: [] };
    effects.set(root, known);
    known.moves.push({ result, effect });
  };
  for (const [sheet, { workings, outcomes }] of sheets.entries())
    for (const entry of workings.entries) {
      const outcome = outcomes.get(entry.id);
      if (outcome?.kind !== 'results') continue;
      for (const result of outcome.results) {
        const place = results.push(
          storedResult(result, { sheet, entry: entry.id, region: regionOfEntry(entry) ?? null }),
        );
        for (const influence of influencesOf(result)) take(place - 1, influence);
      }
    }
  const shared: SharedRoot[] = [];
  const own: OwnRoot[] = [];
  for (const [root, { label, moves }] of effects)
    if (isShared(runId, root, moves))
      shared.push({
        root,
        label,
        moves: moves.map(({ result, effect }) => [result, storedNumber(effect.weights[0])]),
      });
    else own.push(ownRoot(root, label, moves));
  return {
    runId,
    sheets: sheets.map(({ outcomes }) => storedOutcomes(outcomes)),
    results,
    shared,
    own,
    repeats: sheets.flatMap((evaluated, sheet) => repeatsOf(runId, evaluated, sheet)),
  };
}

/** More values of one run than this are no rows that anybody reads. */
const mostRepeats = 1000;

/** The series of a sheet, and the channels of the run, whose values are measurements of their own; and what entries found one by one. */
function repeatsOf(runId: string, { outcomes, channels }: Evaluated, sheet: number): StoredRepeats[] {
  const made = [...outcomes].flatMap(([id, outcome]): [SeriesRef, Series][] =>
    outcome.kind === 'series' ? [[entryRef(id), outcome.series]] : [],
  );
  const measured = [...(channels ?? []), ...made].flatMap(([of, series]): StoredRepeats[] => {
    const { symbol, unit, values, uncertainties, shared = [] } = series;
    if (series.repeats !== true || values.length > mostRepeats) return [];
    return [
      {
        sheet,
        of,
        symbol,
        unit: ucumCode(unit),
        values: Array.from(values, storedNumber),
        uncertainties: Array.from(values, (_, i) => storedNumber(uncertainties?.[i] ?? NaN)),
        together: shared.map((one) => ({
          root: one.root,
          label: one.label,
          effects: Array.from(values, (_, i) => storedNumber(sharedAt(one, i))),
        })),
      },
    ];
  });
  return [...measured, ...[...outcomes].flatMap(([id, outcome]) => foundOneByOne(runId, id, outcome, sheet))];
}

function foundOneByOne(runId: string, id: string, outcome: Outcome, sheet: number): StoredRepeats[] {
  if (outcome.kind !== 'results' || outcome.each === undefined) return [];
  return outcome.each().map((found) => ({
    sheet,
    of: eachRef(id, found.key),
    symbol: found.symbol,
    unit: ucumCode(found.unit),
    values: found.quantities.map(({ value }) => storedNumber(value)),
    uncertainties: found.quantities.map(({ standardUncertainty }) =>
      storedNumber(standardUncertainty ?? NaN),
    ),
    together: togetherOf(runId, `${id}/${found.key}`, found).map(({ root, label, effects }) => ({
      root,
      label,
      effects: Array.from(effects, storedNumber),
    })),
  }));
}

/** What moves a result; nothing where that cannot be determined, as of readings of which a filter lacks too many. */
function influencesOf({ quantity }: NamedResult): Influence[] {
  const found = orRefusal(() => quantity.influences());
  return found instanceof Refusal ? [] : found;
}

type Move = Readonly<{ result: number; effect: WeightSpan }>;

/** Roots of a run carry its id; whatever other runs may share moves a result by one number. */
const isShared = (runId: string, root: string, moves: readonly Move[]): boolean =>
  !root.startsWith(`${runId}/`) &&
  moves.every(({ effect: { first, weights } }) => first === 0 && weights.length === 1);

function ownRoot(root: string, label: string, moves: readonly Move[]): OwnRoot {
  const covariance = Array.from(productsOfSpans(moves.map(({ effect }) => effect)), storedNumber);
  return { root, label, results: moves.map(({ result }) => result), covariance };
}

function storedResult(
  { key, name, quantity, roundTo, main }: NamedResult,
  which: Pick<StoredResult, 'sheet' | 'entry' | 'region'>,
): StoredResult {
  const { value, unit, standardUncertainty, degreesOfFreedom } = quantity;
  return {
    ...which,
    field: key,
    name,
    value: storedNumber(value),
    unit: ucumCode(unit),
    standardUncertainty: standardUncertainty === null ? null : storedNumber(standardUncertainty),
    degreesOfFreedom: degreesOfFreedom === Infinity ? null : storedNumber(degreesOfFreedom),
    roundTo: roundTo === null ? null : storedNumber(roundTo),
    main,
  };
}

const storedOutcomes = (outcomes: ReadonlyMap<string, Outcome>): Record<string, StoredOutcome> =>
  Object.fromEntries([...outcomes].map(([id, outcome]) => [id, storedOutcome(outcome)]));

function storedOutcome(outcome: Outcome): StoredOutcome {
  switch (outcome.kind) {
    case 'refused': {
      const { kind, sentence, lacks, isFault } = outcome;
      return {
        kind,
        sentence,
        ...(lacks === undefined ? {} : { lacks }),
        ...(isFault === undefined ? {} : { isFault }),
      };
    }
    case 'region': {
      const { kind, start, end, notes } = outcome;
      return { kind, start: storedNumber(start), end: storedNumber(end), notes };
    }
    case 'series': {
      const { symbol, quantity, unit, values } = outcome.series;
      return {
        kind: 'series',
        symbol,
        quantity,
        unit: ucumCode(unit),
        count: values.length,
        notes: outcome.notes,
      };
    }
    case 'results':
      return { kind: 'results', notes: outcome.notes };
  }
}
