import { type Plan, type Run, readPlan } from '@heuristor/contracts';
import { channelFieldsOf } from '../models/channel';
import { type RunModel } from '../models/run';

/** A run as it goes over HTTP and the live stream. */
export function presentRun(run: RunModel): Run {
  return {
    id: run.id,
    investigationId: run.investigationId,
    number: run.number,
    name: run.name,
    origin: run.origin,
    state: run.state,
    startedAt: run.startedAt.toISOString(),
    timeZone: run.timeZone ?? null,
    removed: run.deletedAt !== null,
    gaps: (run.gaps ?? []).map(({ channel, from, to }) => ({ channel, from, to })),
    notes: run.notes,
    plan: run.origin === 'imported' ? null : planOf(run.plan),
    practice: run.practice,
    conditions: run.conditions,
    group: run.group,
    remark: run.remark,
    planned: run.planned ?? null,
    spot:
      run.spot === null
        ? null
        : {
            ...run.spot,
            rows: [...(run.spots ?? [])]
              .sort((a, b) => a.id - b.id)
              .map(({ id, at, cells, removedAt }) => ({
                id,
                at: at.toISOString(),
                cells,
                removed: removedAt !== null,
              })),
          },
    channels: [...(run.channels ?? [])]
      .sort((a, b) => a.position - b.position)
      .map((channel) => ({ id: channel.id, ...channelFieldsOf(channel) })),
  };
}

/** The plan of a run; one that cannot be read must not hide the run. */
function planOf(stored: unknown): Plan | null {
  try {
    return readPlan(stored);
  } catch {
    return null;
  }
}
