import { type Channel, type Run } from '@heuristor/contracts';
import { type ChannelModel } from '../models/channel';
import { type RunModel } from '../models/run';

export function presentChannel(channel: ChannelModel): Channel {
  const {
    id,
    key,
    symbol,
    quantity,
    unit,
    timeUnit,
    interval,
    start,
    low,
    high,
    deviceCode,
    zero,
    reversed,
  } = channel;
  return {
    id,
    key,
    symbol,
    quantity,
    unit,
    timeUnit,
    interval,
    start,
    low,
    high,
    deviceCode,
    zero,
    reversed,
  };
}

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
    gaps: run.gaps,
    channels: [...(run.channels ?? [])].sort((a, b) => a.position - b.position).map(presentChannel),
  };
}
