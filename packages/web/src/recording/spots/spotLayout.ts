import { type Run, type WorkingsDocument, panelOf } from '@heuristor/contracts';
import { channelRef } from '@heuristor/core';
import { mostTraces, withPage } from '../../traces/pages/pages';

/** The sheet with a series laid out: what was measured against what was typed first. */
export function withSeriesLaidOut(
  workings: WorkingsDocument,
  page: string | null,
  { spot }: Run,
): WorkingsDocument {
  const numbers = spot?.columns.filter(({ kind }) => kind !== 'word') ?? [];
  const across = numbers.find(({ kind }) => kind === 'typed');
  const up = numbers.filter((column) => column !== across);
  if (across === undefined || up.length === 0) return workings;
  return withPage(workings, page, (before) => ({
    ...before,
    horizontal: channelRef(across.key),
    panels: up.slice(0, mostTraces).map(({ key }) => panelOf(channelRef(key))),
  }));
}
