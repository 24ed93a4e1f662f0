import { type Run } from '@heuristor/contracts';
import { type Unit, axisLabel, readIn, divideUnits, intervalUnit } from '@heuristor/core';
import { type DrawnQuantity, type DrawnTrace } from '../drawn';
import { type Axis, type CursorValue } from '../../workers/protocol';
import { type Read } from './cursor';

/** What lies between two cursors, for one quantity. */
export interface Difference {
  symbol: string;
  change: number;
  unit: Unit;
  /** Of the straight line between both points. */
  slope: number | null;
  slopeUnit: Unit;
}

/** A value in the unit of the axis on which it is read; null where it is none of that. */
function onAxis(trace: DrawnTrace, { side }: DrawnQuantity, { y, unit }: CursorValue): number | null {
  const axis = axisOf(trace, side);
  return readIn(y, unit, axis.unit);
}

/** The axis of a trace on which something is read. */
export const axisOf = (trace: DrawnTrace, side: DrawnQuantity['side']) =>
  side === 'right' && trace.right !== null ? trace.right : trace;

/** What changes from the earlier of two cursors to the later one in one run, first of all the time. */
export function differencesOf(
  first: Read,
  second: Read,
  runId: string,
  traces: readonly DrawnTrace[],
  timeUnit: Unit,
): Difference[] {
  const [read, before] = first.at < second.at ? [second, first] : [first, second];
  const valuesIn = ({ runs }: Read) => runs.find((reading) => reading.runId === runId)?.values ?? {};
  const [here, there] = [valuesIn(read), valuesIn(before)];
  const found: Difference[] = [];
  const seen = new Set<string>();
  let time: number | null = null;
  for (const trace of traces)
    for (const quantity of trace.quantities) {
      const [a, b] = [here[quantity.reference], there[quantity.reference]];
      if (a === undefined || b === undefined || seen.has(quantity.reference)) continue;
      const [to, from] = [onAxis(trace, quantity, a), onAxis(trace, quantity, b)];
      if (to === null || from === null) continue;
      seen.add(quantity.reference);
      const duration = a.x - b.x;
      time ??= duration;
      const { unit } = axisOf(trace, quantity.side);
      found.push({
        symbol: quantity.symbol,
        change: to - from,
        unit: intervalUnit(unit),
        slope: duration === 0 ? null : (to - from) / duration,
        slopeUnit: divideUnits(unit, timeUnit),
      });
    }
  const own = {
    symbol: 't',
    change: time ?? read.at - before.at,
    unit: timeUnit,
    slope: null,
    slopeUnit: [],
  };
  return [own, ...found];
}

/** The tangents of one run at a cursor, where they are laid; each quantity once. */
export function tangentsOf(
  { runs }: Read,
  runId: string,
  traces: readonly DrawnTrace[],
): ({ symbol: string } & NonNullable<CursorValue['tangent']>)[] {
  const values = runs.find((reading) => reading.runId === runId)?.values ?? {};
  const shown = new Map(
    traces.flatMap(({ quantities }) => quantities.map(({ reference, symbol }) => [reference, symbol])),
  );
  return [...shown].flatMap(([reference, symbol]) => {
    const tangent = values[reference]?.tangent;
    return tangent == null ? [] : [{ symbol, ...tangent }];
  });
}

/** What all runs are at a cursor, as columns for a spreadsheet: a row a run, every number with all its digits. */
export function cursorTable(
  { at, runs: readings }: Read,
  runs: readonly Run[],
  traces: readonly DrawnTrace[],
  horizontal: Axis,
): string {
  const columns = traces.flatMap((trace) => trace.quantities.map((quantity) => ({ trace, quantity })));
  const heading = [
    'run',
    axisLabel(horizontal.symbol, horizontal.unit),
    ...columns.map(({ trace, quantity }) => axisLabel(quantity.symbol, axisOf(trace, quantity.side).unit)),
  ];
  const rows = readings.map(({ runId, values }) => {
    const cells = columns.map(({ trace, quantity }) => {
      const value = values[quantity.reference];
      const shown = value === undefined ? null : onAxis(trace, quantity, value);
      return shown === null ? '' : String(shown);
    });
    const first = columns
      .map(({ quantity }) => values[quantity.reference])
      .find((value) => value !== undefined);
    // A tab in a name would be another column.
    const name = runs.find(({ id }) => id === runId)?.name.replaceAll('\t', ' ') ?? '';
    return [name, String(first?.x ?? at), ...cells];
  });
  return [heading, ...rows].map((row) => row.join('\t')).join('\n');
}
