import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import { channelRef } from '@heuristor/core';
import { mostTraces } from './edits';

/** The sheet with a series laid out: what was measured against what was typed first. */
export function withSeriesLaidOut(workings: WorkingsDocument, { spot }: Run): WorkingsDocument {
  const numbers = spot?.columns.filter(({ kind }) => kind !== 'word') ?? [];
  const across = numbers.find(({ kind }) => kind === 'typed');
  const up = numbers.filter((column) => column !== across);
  if (across === undefined || up.length === 0) return workings;
  return {
    ...workings,
    horizontal: channelRef(across.key),
    traces: up.map(({ key }) => channelRef(key)).slice(0, mostTraces),
  };
}
