import {
  type OpenedResult,
  type Quantity,
  type SeriesRef,
  type StoredEvaluation,
  type StoredOutcome,
  type StoredRepeats,
  openedEvaluation,
  parseUnit,
} from '@heuristor/core';

/** What the workings say of a run, as a table reads it. */
export interface RunOutcome {
  results: ReadonlyMap<string, OpenedResult>;
  outcomes: Readonly<Record<string, StoredOutcome>>;
  /** Series of single measurements, by their references. */
  repeats: ReadonlyMap<SeriesRef, Repeats>;
}

/** A series of single measurements, each with all that moves it. */
export interface Repeats {
  symbol: string;
  quantities: readonly Quantity[];
}

/** @param entry of the sheet @param field one of its results */
export const placeOf = (entry: string, field: string): string => `${entry}/${field}`;

export function runOutcome(stored: StoredEvaluation): RunOutcome {
  return {
    results: new Map(openedEvaluation(stored).map((result) => [placeOf(result.entry, result.field), result])),
    outcomes: stored.sheets[0] ?? {},
    repeats: new Map(stored.repeats.map((one) => [one.of, repeatsOf(stored.runId, one)])),
  };
}

/** What each of several sheets says of a run, which were worked out together. */
export function outcomesOfSheets(stored: StoredEvaluation): RunOutcome[] {
  const opened = openedEvaluation(stored);
  return stored.sheets.map((outcomes, sheet) => ({
    results: new Map(
      opened
        .filter((result) => result.sheet === sheet)
        .map((result) => [placeOf(result.entry, result.field), result]),
    ),
    outcomes,
    repeats: new Map(),
  }));
}

function repeatsOf(
  runId: string,
  { of, symbol, unit, values, uncertainties, together }: StoredRepeats,
): Repeats {
  const parsed = parseUnit(unit);
  return {
    symbol,
    quantities: values.map((value, i): Quantity => {
      const u = Number(uncertainties[i]);
      const shared = together.map(({ root, label, effects }) => ({ root, label, by: Number(effects[i]) }));
      const alone = u * u - shared.reduce((sum, { by }) => sum + by * by, 0);
      const roots = [
        ...shared,
        { root: `${runId}/${of}/${i}`, label: `readings of ${symbol}`, by: Math.sqrt(Math.max(alone, 0)) },
      ].filter(({ by }) => by !== 0 && Number.isFinite(by));
      return {
        value: Number(value),
        unit: parsed,
        standardUncertainty: u > 0 ? u : null,
        degreesOfFreedom: Infinity,
        influences: () =>
          roots.map(({ root, label, by }) => ({
            root,
            label,
            effect: { first: 0, weights: Float64Array.of(by) },
          })),
      };
    }),
  };
}

/** Every series of single measurements that a run has. */
export function repeatsIn({
  outcomes,
}: {
  outcomes: ReadonlyMap<string, RunOutcome>;
}): { of: SeriesRef; symbol: string }[] {
  const found = new Map<SeriesRef, string>();
  for (const { repeats } of outcomes.values())
    for (const [of, { symbol }] of repeats) if (!found.has(of)) found.set(of, symbol);
  return [...found].map(([of, symbol]) => ({ of, symbol }));
}
