import { type BudgetRow, raised, writeResult } from '@heuristor/core';
import { useEffect, useState } from 'react';
import { useDocuments, useSession } from '../session/context';
import { UnitText } from '../ui/UnitText';
import { type ShownResult } from '../workers/protocol';

/** What the uncertainty of a result is made of: each root with its share (JCGM 100:2008, H.1 shows such a table). */
export function Budget({ entryId, runId, result }: { entryId: string; runId: string; result: ShownResult }) {
  const session = useSession();
  const workings = useDocuments((documents) => documents.workings);
  const [rows, setRows] = useState<BudgetRow[] | null>(null);
  const { standardUncertainty, halfWidth, degreesOfFreedom, unit, key, name } = result;
  useEffect(() => {
    let left = false;
    session.pool.budget(runId, workings, entryId, key).then(
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
        <span className="quiet">One moment …</span>
      ) : (
        <table>
          <tbody>
            {rows.map((row) => (
              <tr key={row.label}>
                <th>{row.label}</th>
                <td>
                  {writeResult(row.standardUncertainty, null, 2).value}
                  {exponentOf(row.standardUncertainty)} <UnitText unit={unit} />
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
      {isWidened && degreesOfFreedom !== null && (
        <p className="note">
          Known by {degreesOfFreedom.toFixed(1)} degrees of freedom only: ± is{' '}
          {(halfWidth / standardUncertainty).toFixed(2)} × the standard uncertainty, so that it covers 68 %
          (Student’s t).
        </p>
      )}
    </div>
  );
}

const exponentOf = (value: number) => {
  const { exponent } = writeResult(value, null, 2);
  return exponent === 0 ? '' : ` × 10${raised(exponent)}`;
};
