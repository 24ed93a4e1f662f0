import { axisLabel } from '@heuristor/core';
import { useEffect, useRef } from 'react';
import { Table } from 'react-bootstrap';
import { rowsOfPasses } from './passRows';
import { ResultText } from '../../ui/ResultText';
import { type PassColumn, PassValue } from './PassValue';
import { fixedText } from '../../ui/numberText';

/** More rows than this are not looked at one by one; the newest are shown. */
const mostRows = 200;

/** With more columns than this, their uncertainties are left to the title of each number and to the mean. */
const mostWithUncertainty = 2;

/** The passes of the run in front, with their mean and the standard deviation. */
export function Passes({ columns }: { columns: readonly PassColumn[] }) {
  const body = useRef<HTMLDivElement>(null);
  const rows = rowsOfPasses(columns.map(({ passes }) => passes));
  const isNumbered = rows.some(({ number }) => number !== null);
  // Rows of different moments need a column of their own for each quantity.
  const isWide = columns.length > mostWithUncertainty || (columns.length > 1 && !isNumbered);
  const { length } = rows;
  useEffect(() => {
    // The newest stays in sight.
    body.current?.scrollTo({ top: body.current.scrollHeight });
  }, [length]);
  const shown = rows.slice(-mostRows);
  return (
    <div className="passes" ref={body} tabIndex={0} role="region" aria-label="Passes">
      <Table size="sm">
        <thead>
          <tr>
            {isNumbered && <th scope="col">pass</th>}
            <th scope="col">t / s</th>
            {columns.map(({ id, name, unit }) => (
              <th key={id} scope="col">
                {axisLabel(name, unit)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.length > shown.length && (
            <tr>
              <td colSpan={columns.length + (isNumbered ? 2 : 1)} className="quiet">
                {rows.length - shown.length} earlier ones count too
              </td>
            </tr>
          )}
          {shown.map(({ time, number, places, reason }) => (
            <tr key={`${time}${reason}`} className={reason === null ? '' : 'left-out'}>
              {isNumbered && <td>{number ?? '×'}</td>}
              <td>{fixedText(time, 3)}</td>
              {reason === null ? (
                columns.map(({ id, passes }, column) => {
                  const place = places[column];
                  return (
                    <td key={id}>
                      {place !== null && (
                        <PassValue
                          value={passes.values[place]}
                          uncertainty={passes.uncertainties[place]}
                          unit={[]}
                          isShort={isWide}
                        />
                      )}
                    </td>
                  );
                })
              ) : (
                <td colSpan={columns.length}>left out: {reason}</td>
              )}
            </tr>
          ))}
        </tbody>
        <Summary columns={columns} across={isNumbered ? 2 : 1} />
        <caption>± of the mean is sd/√n by Student’s t, with the length.</caption>
      </Table>
    </div>
  );
}

function Summary({ columns, across }: { columns: readonly PassColumn[]; across: number }) {
  const row = (title: string, cell: (column: PassColumn) => React.ReactNode) => (
    <tr>
      <th scope="row" colSpan={across}>
        {title}
      </th>
      {columns.map((column) => (
        <td key={column.id}>{column.isAveraged && cell(column)}</td>
      ))}
    </tr>
  );
  const several = columns.some(({ passes, isAveraged }) => isAveraged && passes.values.length > 1);
  if (!several) return null;
  const spreadOf = ({ passes }: PassColumn) => {
    const { standardDeviation: spread, values } = passes;
    if (spread === null) return null;
    const digits = spread / Math.sqrt(2 * (values.length - 1));
    return <ResultText result={{ value: spread, halfWidth: null, roundTo: digits, unit: [] }} />;
  };
  return (
    <tfoot>
      {row('mean', ({ passes: { mean } }) =>
        mean === null ? null : <ResultText result={{ ...mean, roundTo: null, unit: [] }} />,
      )}
      {row('standard deviation', spreadOf)}
    </tfoot>
  );
}
