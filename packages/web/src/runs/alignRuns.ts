import { tell } from '../ui/noticeStore';
import { type RunEvent } from '../workers/runEvents';
import { aligned, withShifts } from './aligning';
import { type InvestigationSession } from '../investigation/investigationSession';
import { shownRuns } from './runs';

type Bench = Pick<InvestigationSession, 'front' | 'runs' | 'pool' | 'workings' | 'changeWorkings'>;

/** Brings the same event of all shown runs to where it is in the run in front. */
export async function alignRuns(bench: Bench, event: RunEvent, near: number): Promise<void> {
  const { front } = bench;
  if (front === undefined) return;
  const shown = shownRuns(bench.runs);
  const moments = await bench.pool.askAll(
    shown.map(({ id }) => id),
    'moments',
    { workings: bench.workings, event },
  );
  const found = aligned(bench.workings, moments, front.id, near);
  const named = (ids: readonly string[]) =>
    ids.map((id) => shown.find((run) => run.id === id)?.name ?? '').join(', ');
  if (found === null) {
    tell({ kind: 'news', text: `${front.name} has no such moment. Put the cursor where it has one.` });
    return;
  }
  bench.changeWorkings((workings) => withShifts(workings, found.shifts));
  if (found.lacking.length > 0)
    tell({ kind: 'news', text: `There is no such moment in ${named(found.lacking)}; not moved.` });
}
