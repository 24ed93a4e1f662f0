import { Table } from 'react-bootstrap';
import { type Written } from './table';

/** A table as it is written. */
export function WrittenTable({ table: { head, rows } }: { table: Written }) {
  return (
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
  );
}
