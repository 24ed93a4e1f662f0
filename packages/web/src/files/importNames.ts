import { type Import, type ImportNames } from '@heuristor/contracts';
import { canConvert, parseUnit, printedUnit } from '@heuristor/core';

type Ready = Extract<Import['state'], { kind: 'ready' }>;

/** What the file says itself: names and units as they were read. */
export const namesAsRead = ({ runs }: Ready): ImportNames =>
  runs.map(({ name, channels }) => ({
    name,
    channels: channels.map(({ name: column, unit }) => ({
      name: column,
      unit: printedUnit(parseUnit(unit)),
    })),
  }));

/** The names with one run called otherwise. */
export const withRunNamed = (names: ImportNames, run: number, name: string): ImportNames =>
  names.map((own, i) => (i === run ? { ...own, name } : own));

/** The names with a column called, or measured, otherwise. */
export const withColumn = (
  names: ImportNames,
  run: number,
  column: number,
  patch: Partial<ImportNames[number]['channels'][number]>,
): ImportNames =>
  names.map((own, i) =>
    i === run
      ? {
          ...own,
          channels: own.channels.map((channel, c) => (c === column ? { ...channel, ...patch } : channel)),
        }
      : own,
  );

/** What is wrong with a run's name, or null. */
export const faultOfRun = ({ name }: ImportNames[number]): string | null =>
  name.trim() === '' ? 'A run needs a name.' : null;

/** What is wrong with the name of a column beside the others of its run, or null. */
export function faultOfColumn({ channels }: ImportNames[number], column: number): string | null {
  const name = channels[column].name.trim();
  if (name === '') return 'A column needs a name.';
  const twin = channels.findIndex((other, c) => c !== column && other.name.trim() === name);
  return twin < 0 ? null : `Another column is called ${name} too.`;
}

export const isFaultless = (names: ImportNames): boolean =>
  names.every(
    (run) =>
      faultOfRun(run) === null && run.channels.every((_, column) => faultOfColumn(run, column) === null),
  );

/** What to know of a unit that is none that can be brought into others, or null. */
export function remarkOnUnit(text: string): string | null {
  const unit = parseUnit(text);
  return unit.length === 0 || canConvert(unit, unit)
    ? null
    : `${printedUnit(unit)} is no unit known here: it stands as it is and goes into no other.`;
}
