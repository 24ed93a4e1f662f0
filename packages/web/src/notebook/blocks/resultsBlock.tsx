import { Table } from 'react-bootstrap-icons';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { countedRuns } from '../../trials/counted';
import { useNotebook } from '../context';
import { useRunsNeeded } from '../useRunsNeeded';
import { useSharedText } from '../useShared';
import { writtenResults } from '../written/results';
import { TableFrame, useFrozen } from './TableFrame';
import { type BlockProps, type BlockView } from './block';

function ResultsView({ id }: BlockProps) {
  const notebook = useNotebook();
  const { workings, runs: all } = useStore(notebook.host.documents);
  const { outcomes } = useStore(notebook.values.state);
  const runs = useMemo(() => countedRuns(all), [all]);
  useRunsNeeded(useFrozen(id) === null ? runs : []);
  const written = useMemo(() => writtenResults({ workings, outcomes, runs }), [workings, outcomes, runs]);
  const followed =
    runs.length === 0
      ? 'There are no runs yet. Each run that counts will be a row here.'
      : written.head.length === 1 && !written.isWaiting
        ? 'The workings have no results yet. Each result that is worked out on the Bench will be a column here.'
        : written;
  return <TableFrame id={id} follows="the workings" followed={followed} />;
}

function useName(id: string): string {
  const [title] = useSharedText(useNotebook().document.lineOf(id, 'title'));
  return title === '' ? 'Results' : title;
}

export const resultsBlock: BlockView = {
  kind: 'results',
  title: 'Table of results',
  Icon: Table,
  View: ResultsView,
  useName,
};
