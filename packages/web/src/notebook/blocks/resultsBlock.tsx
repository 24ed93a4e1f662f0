import { useEffect, useMemo } from 'react';
import { Button, Table } from 'react-bootstrap';
import { useStore } from 'zustand';
import { countedRuns } from '../../trials/counted';
import { SharedLine } from '../SharedLine';
import { useNotebook } from '../context';
import { Step } from '../document/step';
import { useBlockField, useSharedText } from '../useShared';
import { writtenResults } from '../writtenResults';
import { type BlockProps, type BlockView } from './block';
import { type Written, frozenTable } from './writtenTable';

/** What the workings say of every run that counts, as a table is written. */
function useFollowed(isWanted: boolean): Written & { isWaiting: boolean } {
  const notebook = useNotebook();
  const { workings, runs: all } = useStore(notebook.host.documents);
  const { outcomes } = useStore(notebook.values.state);
  const runs = useMemo(() => countedRuns(all), [all]);
  const ids = runs.map(({ id }) => id).join();
  useEffect(() => {
    if (!isWanted || ids === '') return undefined;
    const stops = ids.split(',').map((id) => notebook.values.need(id));
    return () => stops.forEach((stop) => stop());
  }, [notebook, ids, isWanted]);
  return useMemo(() => writtenResults({ workings, outcomes, runs }), [workings, outcomes, runs]);
}

function ResultsView({ id }: BlockProps) {
  const notebook = useNotebook();
  const frozen = frozenTable(useBlockField(notebook.document.block(id), 'frozen'));
  const followed = useFollowed(frozen === null);
  const { head, rows } = frozen ?? followed;
  const freeze = (table: Written | null) =>
    notebook.document.set(
      id,
      'frozen',
      table === null ? '' : JSON.stringify({ head: table.head, rows: table.rows }),
      new Step(table === null ? 'let a table follow' : 'freeze a table'),
    );
  return (
    <figure className="results-block">
      <header>
        <SharedLine
          shared={notebook.document.lineOf(id, 'title')}
          label="Title of the table"
          placeholder="Title"
          className="pin-title"
          mayWrite={notebook.mayWrite}
        />
        <span className="pin-origin">
          {frozen === null ? 'follows the workings' : 'as it was when it was frozen'}
          {notebook.mayWrite && (
            <Button
              variant="link"
              disabled={frozen === null && followed.isWaiting}
              onClick={() => freeze(frozen === null ? followed : null)}
            >
              {frozen === null ? 'Freeze' : 'Follow'}
            </Button>
          )}
        </span>
      </header>
      {rows.length === 0 ? (
        <p className="quiet">There are no runs yet. Each run that counts will be a row here.</p>
      ) : head.length === 1 ? (
        <p className="quiet">
          The workings have no results yet. Each result that is worked out on the Bench will be a column here.
        </p>
      ) : (
        <div className="wide-table">
          <Table size="sm">
            <thead>
              <tr>
                {head.map((title, i) => (
                  <th key={i} scope="col">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((cells, i) => (
                <tr key={i}>
                  {cells.map((cell, column) =>
                    column === 0 ? (
                      <th key={column} scope="row">
                        {cell}
                      </th>
                    ) : (
                      <td key={column} className="number">
                        {cell}
                      </td>
                    ),
                  )}
                </tr>
              ))}
            </tbody>
          </Table>
        </div>
      )}
    </figure>
  );
}

function useName(id: string): string {
  const [title] = useSharedText(useNotebook().document.lineOf(id, 'title'));
  return title === '' ? 'Results' : title;
}

export const resultsBlock: BlockView = {
  kind: 'results',
  title: 'Table of results',
  View: ResultsView,
  useName,
};
