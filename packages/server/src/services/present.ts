import { type Run } from '@heuristor/contracts';
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
    shown: run.shown,
    style: run.style,
    startedAt: run.startedAt.toISOString(),
    removed: run.deletedAt !== null,
    gaps: (run.gaps ?? []).map(({ channel, from, to }) => ({ channel, from, to })),
    notes: run.notes,
    channels: [...(run.channels ?? [])]
      .sort((a, b) => a.position - b.position)
      .map((channel) => ({ id: channel.id, ...channelFieldsOf(channel) })),
  };
}
