import { type PinContent } from '@heuristor/contracts';
import { Table } from 'react-bootstrap';

/** The results that stood beside a picture: of one run as a line, of several as a table. */
export function PinnedResults({ content: { runs, results } }: { content: PinContent }) {
  if (runs.length < 2)
    return (
      <ul className="pin-results">
        {results.map(({ run, entry, key, name, text }) => (
          <li key={`${run}/${entry}/${key}`}>
            {name} = <span className="number">{text}</span>
          </li>
        ))}
      </ul>
    );
  const names = [...new Set(results.map(({ name }) => name))];
  const shown = runs.filter(({ id }) => results.some(({ run }) => run === id));
  return (
    <div className="wide-table">
      <Table size="sm" className="pin-table">
        <thead>
          <tr>
            <th scope="col">run</th>
            {names.map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((run) => (
            <tr key={run.id}>
              <th scope="row">
                {run.number} · {run.name}
              </th>
              {names.map((name) => (
                <td key={name} className="number">
                  {results.find((one) => one.run === run.id && one.name === name)?.text ?? '–'}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  );
}
