import { type BudgetRow, type Unit, coverageFactor, intervalUnit } from '@heuristor/core';
import { useEffect, useState } from 'react';
import { useDocuments, useSession } from '../../investigation/context';
import { ResultText } from '../../ui/ResultText';
import { type ShownResult } from '../../workers/protocol';
import { fixedText } from '../../ui/numberText';

/** What the uncertainty of a result is made of: each root with its share (JCGM 100:2008, H.1 shows such a table). */
export function Budget({
  entryId,
  runId,
  result,
  unit: displayedUnit,
}: {
  entryId: string;
  runId: string;
  result: ShownResult;
  /** The unit that the result is shown in. */
  unit: Unit;
}) {
  const session = useSession();
  const workings = useDocuments((documents) => documents.workings);
  const [rows, setRows] = useState<BudgetRow[] | null>(null);
  const { standardUncertainty, halfWidth, degreesOfFreedom, unit, key, name } = result;
  useEffect(() => {
    let left = false;
    session.pool.demand(runId, 'budget', { workings, entryId, key }).then(
      (found) => {
        if (!left) setRows(found);
      },
      () => {
        if (!left) setRows([]);
      },
    );
    return () => {
      left = true;
    };
  }, [session, runId, workings, entryId, key, standardUncertainty]);
  const isWidened =
    standardUncertainty !== null && halfWidth !== null && halfWidth > 1.005 * standardUncertainty;
  return (
    <div className="budget" role="region" aria-label={`Uncertainty of ${name}`}>
      {rows === null ? (
        <span className="quiet">Working it out …</span>
      ) : (
        <table>
          <tbody>
            {rows.map((row) => (
              <tr key={row.label}>
                <th>{row.label}</th>
                <td>
                  <ResultText
                    result={{
                      value: row.standardUncertainty,
                      halfWidth: null,
                      roundTo: row.standardUncertainty,
                      unit: intervalUnit(unit),
                    }}
                    unit={intervalUnit(displayedUnit)}
                  />
                </td>
                <td>{Math.round(row.share * 100)} %</td>
              </tr>
            ))}
            {rows.length === 0 && (
              <tr>
                <th>the scatter of the values</th>
                <td />
                <td>100 %</td>
              </tr>
            )}
          </tbody>
        </table>
      )}
      {standardUncertainty !== null && standardUncertainty > 0 && (
        <p className="note" data-holds="95">
          95 of 100:{' '}
          <ResultText
            result={{
              ...result,
              halfWidth: standardUncertainty * coverageFactor(degreesOfFreedom ?? Infinity, 0.95),
            }}
            unit={displayedUnit}
          />
        </p>
      )}
      {isWidened && degreesOfFreedom !== null && (
        <p className="note">
          Known by {fixedText(degreesOfFreedom, 1)} degrees of freedom only: ± is{' '}
          {fixedText(halfWidth / standardUncertainty, 2)} × the standard uncertainty, so that it covers 68 %
          (Student’s t).
        </p>
      )}
    </div>
  );
}
