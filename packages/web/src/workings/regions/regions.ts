import {
  type Entry,
  type EntryOfKind,
  type OwnInterval,
  type Unit,
  parseUnit,
  readIn,
} from '@heuristor/core';
import { type ShownOutcome } from '../../workers/protocol';

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
  /** UCUM code of the unit in which its ends are given; none of time, and where the sheet does not say. */
  unit?: string;
}

/** Whether the ends of a region hang on the run. */
export const isAttached = ({ from = null, until = null, cyclesOf = 't', own = [] }: Region): boolean =>
  from !== null || until !== null || cyclesOf !== 't' || own.length > 0;

/** Where a region lies in the run in front; null where what it is attached to does not happen there. */
export function laidRegion(
  region: Region,
  outcome: ShownOutcome | undefined,
  run: string | undefined,
): LaidRegion | null {
  const { id, letter, name, along, toldIn, own = [] } = region;
  const unit = along === 't' ? undefined : toldIn?.[along];
  const at = ({ start, end }: { start: number; end: number }) => ({
    ...{ id, letter, name, along, start, end, cut: { start, end } },
    ...(unit === undefined ? {} : { unit }),
  });
  const plain = at(region);
  if (!isAttached(region)) return plain;
  // Nothing but the run itself moves a region along something else than time, and the sheet says where to.
  if (along !== 't') return at(own.find((ownInterval) => ownInterval.run === run) ?? region);
  if (outcome?.kind === 'refused') return null;
  return outcome?.kind === 'region'
    ? { ...plain, start: outcome.start, end: outcome.end, cut: outcome.cut }
    : plain;
}

/** A region in the unit of the axis that it lies on; null where that shows something else. */
export function onAxisOf(laid: LaidRegion, axis: Unit | undefined): LaidRegion | null {
  const { unit, cut } = laid;
  if (unit === undefined || axis === undefined) return laid;
  const givenUnit = parseUnit(unit);
  const ends = [laid.start, laid.end, cut.start, cut.end].map((end) => readIn(end, givenUnit, axis));
  const [start, end, cutStart, cutEnd] = ends;
  return start === null || end === null || cutStart === null || cutEnd === null
    ? null
    : { ...laid, start, end, cut: { start: cutStart, end: cutEnd } };
}

/** Ends that a hand has put to places of an axis, in the unit in which the region is given. */
export function fromAxis<E extends Partial<Pick<Region, 'start' | 'end'>>>(
  { along, toldIn }: Pick<Region, 'along' | 'toldIn'>,
  ends: E,
  axis: Unit | undefined,
): E {
  const unit = along === 't' ? undefined : toldIn?.[along];
  if (unit === undefined || axis === undefined) return ends;
  const givenUnit = parseUnit(unit);
  return Object.fromEntries(
    Object.entries(ends).map(([side, end]) => [side, readIn(end, axis, givenUnit) ?? end]),
  ) as E;
}

/** The regions on an axis, as they lie in the run in front. */
export const laidRegions = (
  entries: readonly Entry[],
  along: Region['along'],
  outcomes: Readonly<Record<string, ShownOutcome>> | undefined,
  { run, axis }: { run: string | undefined; axis: Unit | undefined },
): LaidRegion[] =>
  entries
    .filter((entry) => entry.kind === 'region')
    .filter((entry) => entry.along === along)
    .flatMap((entry) => {
      const laid = laidRegion(entry, outcomes?.[entry.id], run);
      return laid === null ? [] : (onAxisOf(laid, axis) ?? []);
    });

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
  const mine = own.find((ownInterval) => ownInterval.run === run);
  if (mine !== undefined)
    return {
      own: own.map((ownInterval) => (ownInterval === mine ? { ...ownInterval, ...ends } : ownInterval)),
    };
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
export const withoutOwn = ({ own = [] }: Region, run: string): OwnInterval[] =>
  own.filter((ownInterval) => ownInterval.run !== run);
