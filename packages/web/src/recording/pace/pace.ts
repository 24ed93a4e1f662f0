import { type PaceTarget, type WorkingsDocument, type Run } from '@heuristor/contracts';
import {
  type Entry,
  type SeriesRef,
  channelRef,
  conversionFactor,
  entryRef,
  generatedPositions,
  generatedSpeeds,
  parseUnit,
  walkingRoom,
  walkingSpeed,
  canConvert,
} from '@heuristor/core';
import { type ShownTarget } from '../../traces/drawn';
import { withEntry } from '../../workings/edits';
import { newId } from '../../investigation/ids';
import { type OnPage, pageIn, withHorizontal, withPage, withShown } from '../../traces/pages/pages';
import { frontRun } from '../../runs/runs';
import { type Quantity } from '../../sensors/sensors';
import { type Documents, type View } from '../../investigation/state';

/** The series that a line belongs to on this sheet; null where a speed has none yet. */
export function seriesOfTarget(
  { quantity, of }: PaceTarget,
  { entries }: WorkingsDocument,
): SeriesRef | null {
  const channel = channelRef(quantity);
  if (of === 'reading') return channel;
  const speed = entries.find((entry) => entry.kind === 'derivative' && entry.of === channel);
  return speed === undefined ? null : entryRef(speed.id);
}

/** The line that is shown: the one that is to be followed next, or that of the run in front. */
export function shownTarget(
  { plan, workings, runs }: Documents,
  { frontRunId, page }: Pick<View, 'frontRunId' | 'page'>,
): ShownTarget | null {
  const target = plan.way === 'pace' ? plan.pace : targetOf(frontRun(runs, frontRunId));
  const reference = target === null ? null : seriesOfTarget(target, workings);
  if (target === null || reference === null || pageIn(workings, page).horizontal !== 't') return null;
  const entry = workings.entries.find(({ id }) => entryRef(id) === reference);
  return {
    reference,
    symbol: entry?.name ?? target.quantity,
    unit: parseUnit(target.unit),
    ...lineOf(target),
  };
}

/** The line that a run was to follow; null of one that was to follow none. */
export const targetOf = (run: Run | undefined): PaceTarget | null =>
  run?.plan?.way === 'pace' ? run.plan.pace : null;

const lines = new WeakMap<PaceTarget, { x: Float64Array; y: Float64Array }>();

/** The points of a line for drawing; the same ones as long as it is the same line. */
function lineOf(target: PaceTarget) {
  let line = lines.get(target);
  if (line === undefined) {
    line = {
      x: Float64Array.from(target.points, ({ t }) => t),
      y: Float64Array.from(target.points, ({ value }) => value),
    };
    lines.set(target, line);
  }
  return line;
}

/** The sheet for a line: what tells how closely it was followed, and a speed to follow where it is one. */
export function withTarget(workings: WorkingsDocument, at: OnPage, target: PaceTarget): WorkingsDocument {
  let sheet = workings;
  if (seriesOfTarget(target, sheet) === null)
    sheet = withEntry(sheet, at, {
      kind: 'derivative',
      of: channelRef(target.quantity),
      nameOfSource: target.quantity,
      region: null,
    }).workings;
  const of = seriesOfTarget(target, sheet);
  if (of === null) return sheet;
  const own = (kind: 'closeness' | 'paceSlopes'): Entry => ({ kind, id: newId(), name: '', of });
  const kinds = ['closeness', 'paceSlopes'] as const;
  const missing = kinds.filter((kind) => !sheet.entries.some((entry) => entry.kind === kind));
  const entries = [
    ...sheet.entries.map((entry) =>
      entry.kind === 'closeness' || entry.kind === 'paceSlopes' ? { ...entry, of } : entry,
    ),
    ...missing.map(own),
  ];
  return withPage({ ...sheet, entries }, at.page, (page) => {
    const overTime = page.horizontal === 't' ? page : withHorizontal(page, 't');
    return page.panels.length === 0 && of.startsWith('channel:')
      ? overTime
      : withShown(overTime, at.runs, [of]);
  });
}

/** Where a line for a quantity may lie: what its sensor sees, and what a person can walk. */
export function roomOf({ channel }: Quantity): { low: number; high: number; fastest: number } {
  const unit = parseUnit(channel.unit);
  const metre = parseUnit('m');
  if (canConvert(metre, unit)) {
    const factor = conversionFactor(metre, unit);
    // The sensor's near side may be the lower or the upper one, whichever way its sign stands.
    const isTurned = channel.reversed;
    const near = isTurned ? channel.high : channel.low;
    const away = isTurned ? -1 : 1;
    const own = 0.15;
    const ends = [walkingRoom.low - own, walkingRoom.high - own].map((way) => near + away * way * factor);
    const [low, high] = [Math.min(...ends), Math.max(...ends)];
    return {
      low: Math.max(low, channel.low),
      high: Math.min(high, channel.high),
      fastest: walkingSpeed * factor,
    };
  }
  const [middle, reach] = [(channel.low + channel.high) / 2, (channel.high - channel.low) / 5];
  return { low: middle - reach, high: middle + reach, fastest: reach / 2 };
}

const perSecond = (unit: string) => (unit === '' || unit === '1' ? 's-1' : `${unit}/s`);

/** A line by its number: the same number and level give the same line wherever they are typed. */
export function generatedTarget(
  quantity: Quantity,
  { of, seed, level }: { of: PaceTarget['of']; seed: number; level: number },
): PaceTarget {
  const room = roomOf(quantity);
  const points =
    of === 'reading' ? generatedPositions(seed, level, room) : generatedSpeeds(seed, level, room).points;
  return {
    quantity: quantity.key,
    of,
    unit: of === 'reading' ? quantity.channel.unit : perSecond(quantity.channel.unit),
    points,
    made: { kind: 'generated', seed, level },
  };
}

/** How long a line is, in seconds. */
export const lengthOf = ({ points }: PaceTarget): number => points[points.length - 1].t;

/** Lines are called by four digits, which a class can say aloud. */
export const mostSeeds = 10_000;
