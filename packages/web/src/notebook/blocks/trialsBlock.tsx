import { Grid3x3 } from 'react-bootstrap-icons';
import { type TrialsDocument } from '@heuristor/contracts';
import { useEffect, useMemo, useState } from 'react';
import { Form } from 'react-bootstrap';
import { useStore } from 'zustand';
import { type StoreApi } from 'zustand/vanilla';
import { useInvestigation } from '../../investigation/context';
import { countedRuns } from '../../trials/counted';
import { useNotebook } from '../context';
import { Step } from '../document/step';
import { useRunsNeeded } from '../useRunsNeeded';
import { useBlockField, useSharedText } from '../useShared';
import { tableName, writtenTrials } from '../written/trials';
import { TableFrame, useFrozen } from './TableFrame';
import { type BlockProps, type BlockView } from './block';

type Trials = StoreApi<{ trials: TrialsDocument }>;

function TrialsView({ id }: BlockProps) {
  const session = useInvestigation();
  const [trials, setTrials] = useState<Trials | 'missing' | null>(null);
  useEffect(() => {
    let isWanted = true;
    session.trials().then(
      ({ state }) => isWanted && setTrials(state),
      () => isWanted && setTrials('missing'),
    );
    return () => {
      isWanted = false;
    };
  }, [session]);
  if (trials === null || trials === 'missing')
    return (
      <TableFrame
        id={id}
        follows="trials"
        followed={trials === null ? 'Loading …' : 'The trials cannot be loaded. Is Heuristor still running?'}
      />
    );
  return <OfTrials id={id} trials={trials} />;
}

function OfTrials({ id, trials }: BlockProps & { trials: Trials }) {
  const notebook = useNotebook();
  const tables = useStore(trials, (state) => state.trials.tables);
  const chosen = useBlockField(notebook.document.block(id), 'table');
  const table = tables.find((one) => one.id === chosen) ?? (chosen === '' ? tables[0] : undefined);
  const { workings, plan, runs: all } = useStore(notebook.host.documents);
  const { outcomes } = useStore(notebook.values.state);
  const runs = useMemo(() => countedRuns(all), [all]);
  useRunsNeeded(useFrozen(id) === null ? runs : []);
  const { conditions } = plan;
  const written = useMemo(
    () => (table === undefined ? null : writtenTrials(table, { workings, conditions, outcomes, runs })),
    [table, workings, conditions, outcomes, runs],
  );
  const followed =
    tables.length === 0
      ? 'There are no tables yet. Make one on Trials; it will stand here.'
      : table === undefined
        ? 'The table that stood here was removed from Trials. Choose another one.'
        : (written ?? 'Rows that are values of a constant stand on Trials alone. Pin them there with N.');
  return (
    <TableFrame id={id} follows="Trials" followed={followed}>
      {notebook.mayWrite && tables.length > 0 && (
        <Form.Select
          aria-label="Table of trials"
          value={table?.id ?? ''}
          onChange={({ target }) =>
            notebook.document.set(id, 'table', target.value, new Step('choose a table'))
          }
        >
          {table === undefined && <option value="">Choose a table</option>}
          {tables.map((one, i) => (
            <option key={one.id} value={one.id}>
              {tableName(one, i)}
            </option>
          ))}
        </Form.Select>
      )}
    </TableFrame>
  );
}

function useName(id: string): string {
  const [title] = useSharedText(useNotebook().document.lineOf(id, 'title'));
  return title === '' ? 'Trials' : title;
}

export const trialsBlock: BlockView = {
  kind: 'trials',
  title: 'Table of trials',
  Icon: Grid3x3,
  View: TrialsView,
  useName,
};
