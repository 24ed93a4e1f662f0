import { type ShownPasses } from '../../workers/protocol';

/** One row of the table of passes. */
export interface PassRow {
  /** Which pass it is; null where a pass has several rows, or is left out. */
  number: number | null;
  time: number;
  /** By quantity: its place among the passes of the quantity. */
  places: (number | null)[];
  /** Why it is left out; null of a pass that counts. */
  reason: string | null;
}

type Passes = Pick<ShownPasses, 'times' | 'values' | 'leftOut'>;

/** Everything that was seen, in the order of time: what is worked out of each pass, and what was left out and why. */
export function rowsOfPasses(quantities: readonly Passes[]): PassRow[] {
  const left = new Map(
    quantities.flatMap(({ leftOut }) => leftOut).map(({ time, reason }) => [time, reason]),
  );
  const leftOut = [...left].map(([time, reason]): PassRow => ({
    number: null,
    time,
    places: quantities.map(() => null),
    reason,
  }));
  return [...countedRows(quantities), ...leftOut].sort((a, b) => a.time - b.time);
}

/** Quantities that every pass has stand in one row a pass; those of a fence are of different moments. */
function countedRows(quantities: readonly Passes[]): PassRow[] {
  const [first] = quantities;
  if (quantities.every(({ values }) => values.length === first.values.length))
    return Array.from(first.times, (time, i) => ({
      number: i + 1,
      time,
      places: quantities.map(() => i),
      reason: null,
    }));
  const rows = new Map<number, PassRow>();
  quantities.forEach(({ times }, quantity) => {
    times.forEach((time, place) => {
      const row = rows.get(time) ?? { number: null, time, places: quantities.map(() => null), reason: null };
      row.places[quantity] = place;
      rows.set(time, row);
    });
  });
  return [...rows.values()];
}
