import { type Entry, kindOf } from '@heuristor/core';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useFrontRun, usePicture } from '../investigation/context';
import { LineSample } from '../runs/LineSample';
import { shownRuns } from '../runs/runs';
import { ResultText } from '../ui/ResultText';
import { UnitText } from '../ui/UnitText';
import { type ShownOutcome, type ShownResult } from '../workers/protocol';
import { shownUnitOf } from './entries/shownUnit';
import { useShown } from './useShown';

interface Row {
  entry: Entry;
  result: ShownResult;
  /** By the shown runs in their order; undefined where a run has none. */
  cells: (ShownResult | undefined)[];
}

const resultsOf = (outcome: ShownOutcome | undefined) => (outcome?.kind === 'results' ? outcome.results : []);

/** Every result that some run has, a row each, with what each run says of it. */
function rowsOf(
  entries: readonly Entry[],
  outcomes: readonly (Readonly<Record<string, ShownOutcome>> | undefined)[],
): Row[] {
  return entries.flatMap((entry) => {
    const perRun = outcomes.map((all) => resultsOf(all?.[entry.id]));
    const keys = [...new Set(perRun.flatMap((results) => results.map(({ key }) => key)))];
    return keys.flatMap((key): Row[] => {
      const cells = perRun.map((results) => results.find((result) => result.key === key));
      const result = cells.find((cell) => cell !== undefined);
      return result === undefined ? [] : [{ entry, result, cells }];
    });
  });
}

/** The results of a sheet as a table: a row a result, a column a run. */
export function SheetTable() {
  const entries = useDocuments(({ workings }) => workings.entries);
  const shown = useDocuments(useShallow(({ runs }) => shownRuns(runs)));
  const front = useFrontRun();
  const outcomes = usePicture(useShallow((picture) => shown.map(({ id }) => picture.outcomes[id])));
  const telling = useMemo(
    () => entries.filter(({ kind }) => kindOf(kind).yields === 'results' && kind !== 'words'),
    [entries],
  );
  useShown(
    'everywhere',
    telling.map(({ id }) => id),
  );
  const rows = useMemo(() => rowsOf(telling, outcomes), [telling, outcomes]);
  if (rows.length === 0) return <p className="quiet">Nothing on this sheet has a result yet.</p>;
  return (
    <div className="sheet-table">
      <table>
        <thead>
          <tr>
            <th scope="col">Result</th>
            {shown.map((run) => (
              <th key={run.id} scope="col" className={run.id === front?.id ? 'front' : ''}>
                <LineSample style={run.style} width={16} /> {run.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ entry, result, cells }) => {
            const unit = shownUnitOf(entry, result);
            return (
              <tr key={`${entry.id}/${result.key}`} className={result.main ? 'main' : ''}>
                <th scope="row">
                  {entry.name === '' || entry.name === result.name
                    ? result.name
                    : `${entry.name}: ${result.name}`}{' '}
                  <span className="quiet">
                    <UnitText unit={unit} />
                  </span>
                </th>
                {cells.map((cell, i) => (
                  <td key={shown[i].id} className="mono" data-result={result.key} data-run={shown[i].number}>
                    {cell === undefined ? (
                      '–'
                    ) : (
                      <ResultText result={cell} unit={unit} inPlaceOfUnit={<></>} />
                    )}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
