import { type WorkingsDocument } from '@heuristor/contracts';
import { type Ranges, united, without } from '@heuristor/core';

/** Readings of one channel of one run. */
export interface Readings {
  run: string;
  channel: string;
  ranges: Ranges;
}

function withRanges(
  workings: WorkingsDocument,
  { run, channel }: Pick<Readings, 'run' | 'channel'>,
  change: (before: Ranges) => Ranges,
): WorkingsDocument {
  const isOwn = (aside: { run: string; channel: string }) => aside.run === run && aside.channel === channel;
  const before = workings.aside.find(isOwn)?.ranges ?? [];
  const ranges = change(before).map(([first, past]): [number, number] => [first, past]);
  const others = workings.aside.filter((aside) => !isOwn(aside));
  return { ...workings, aside: ranges.length === 0 ? others : [...others, { run, channel, ranges }] };
}

/** The sheet with more readings set aside. */
export const withAside = (workings: WorkingsDocument, readings: readonly Readings[]): WorkingsDocument =>
  readings.reduce((sheet, own) => withRanges(sheet, own, (before) => united(before, own.ranges)), workings);

/** The sheet with readings that count again. */
export const withoutAside = (workings: WorkingsDocument, readings: readonly Readings[]): WorkingsDocument =>
  readings.reduce((sheet, own) => withRanges(sheet, own, (before) => without(before, own.ranges)), workings);
