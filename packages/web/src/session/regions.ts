import { type Entry, type EntryOfKind, type OwnStretch } from '@heuristor/core';
import { type ShownOutcome } from '../workers/protocol';

type Region = EntryOfKind<'region'>;

/** A region as it lies in one run. */
export interface LaidRegion {
  id: string;
  letter: string;
  name: string;
  along: Region['along'];
  start: number;
  end: number;
  /** Its ends before it was cut to whole cycles, which are what a hand moves. */
  cut: { start: number; end: number };
}

/** Whether the ends of a region hang on the run. */
export const isAttached = ({ from = null, until = null, cyclesOf = 't', own = [] }: Region): boolean =>
  from !== null || until !== null || cyclesOf !== 't' || own.length > 0;

/** Where a region lies in the run in front; null where what it is attached to does not happen there. */
export function laidRegion(region: Region, outcome: ShownOutcome | undefined): LaidRegion | null {
  const { id, letter, name, along, start, end } = region;
  const plain = { id, letter, name, along, start, end, cut: { start, end } };
  if (!isAttached(region)) return plain;
  if (outcome?.kind === 'refused') return null;
  return outcome?.kind === 'region'
    ? { ...plain, start: outcome.start, end: outcome.end, cut: outcome.cut }
    : plain;
}

/** The regions on an axis, as they lie in the run in front. */
export const laidRegions = (
  entries: readonly Entry[],
  along: Region['along'],
  outcomes: Readonly<Record<string, ShownOutcome>> | undefined,
): LaidRegion[] =>
  entries
    .filter((entry) => entry.kind === 'region')
    .filter((entry) => entry.along === along)
    .flatMap((entry) => laidRegion(entry, outcomes?.[entry.id]) ?? []);

/**
 * What changes in a region when a hand puts its ends elsewhere in one run: its ends in this run alone where it has such, else how
 * long after an event it begins, else the ends themselves.
 * @param laid where the sheet that `before` stands on has laid it in this run
 */
export function placed(
  region: Region,
  run: string | undefined,
  ends: Partial<Pick<Region, 'start' | 'end'>>,
  { before, laid }: { before: Region; laid: LaidRegion | null },
): Partial<Region> {
  const { own = [], from = null, until = null } = region;
  const mine = own.find((stretch) => stretch.run === run);
  if (mine !== undefined)
    return { own: own.map((stretch) => (stretch === mine ? { ...stretch, ...ends } : stretch)) };
  const patch: { -readonly [K in keyof Region]?: Region[K] } = {};
  if (ends.start !== undefined) {
    if (from === null) patch.start = ends.start;
    else if (laid !== null)
      patch.from = { ...from, offset: ends.start - (laid.cut.start - (before.from?.offset ?? 0)) };
  }
  if (ends.end !== undefined) {
    if (until === null) patch.end = ends.end;
    else if (laid !== null)
      patch.until = { ...until, offset: ends.end - (laid.cut.end - (before.until?.offset ?? 0)) };
  }
  return patch;
}

/** The region lies elsewhere in one run from now on, for the time being where it lies. */
export const withOwn = (region: Region, run: string, { start, end }: LaidRegion): Partial<Region> => ({
  own: [...withoutOwn(region, run), { run, start, end }],
});

/** Without what is said of it in one run. */
export const withoutOwn = ({ own = [] }: Region, run: string): OwnStretch[] =>
  own.filter((stretch) => stretch.run !== run);
