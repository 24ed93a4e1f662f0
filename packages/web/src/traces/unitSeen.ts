import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type SeriesRef, channelRef, nameIn, ucumCode, withUnitsGiven } from '@heuristor/core';
import { axisOf } from './cursor/cursorWords';
import { type Picture } from './picture';
import { presentRuns } from '../runs/runs';

interface Seen {
  picture: Pick<Picture, 'frame' | 'traces' | 'outcomes'>;
  runs: readonly Run[];
  front: Run | undefined;
  /** What the horizontal axis of the page that is looked at shows. */
  horizontal: SeriesRef;
}

/**
 * The unit in which a person sees a series, as a UCUM code: that of the axis on which it stands, else that of the run in front, else
 * of the newest that has it. Null where nobody knows.
 */
export function unitSeen(of: SeriesRef, { picture, runs, front, horizontal }: Seen): string | null {
  const { frame, traces, outcomes } = picture;
  if (of === horizontal && frame !== null) return ucumCode(frame.horizontal.unit);
  for (const trace of traces) {
    const quantity = trace.quantities.find(({ reference }) => reference === of);
    if (quantity !== undefined) return ucumCode(axisOf(trace, quantity.side).unit);
  }
  const derived = outcomes[front?.id ?? '']?.[nameIn(of)];
  if (of.startsWith('entry:')) return derived?.kind === 'series' ? ucumCode(derived.unit) : null;
  const isIt = ({ key }: { key: string }) => channelRef(key) === of;
  const channel =
    front?.channels.find(isIt) ??
    presentRuns(runs)
      .flatMap(({ channels }) => channels)
      .findLast(isIt);
  return channel === undefined || channel.unit === '' ? null : channel.unit;
}

/**
 * A sheet whose changed entries say in which unit their numbers are given, so that these mean the same in a run in another unit.
 * @param before the sheet that stood; what has not changed since says what it said
 */
export function withUnitsSeen(
  before: WorkingsDocument,
  after: WorkingsDocument,
  unitOf: (of: SeriesRef) => string | null,
): WorkingsDocument {
  const stood = new Set(before.entries);
  const entries = after.entries.map((entry) => (stood.has(entry) ? entry : withUnitsGiven(entry, unitOf)));
  return entries.every((entry, i) => entry === after.entries[i]) ? after : { ...after, entries };
}
