import { type PinContent } from '@heuristor/contracts';
import { Table } from 'react-bootstrap';
import { type Change } from './useChangesOf';

/** The results of a picture as they were when it was pinned, beside what they are now. */
export function ThenAndNow({ content, changes }: { content: PinContent; changes: readonly Change[] }) {
  const { results, runs } = content;
  return (
    <Table size="sm" className="then-and-now">
      <thead>
        <tr>
          <th scope="col">Result</th>
          <th scope="col">Then</th>
          <th scope="col">Now</th>
        </tr>
      </thead>
      <tbody>
        {results.map((result) => {
          const change = changes.find((one) => one.result === result);
          const run = runs.length > 1 ? runs.find(({ id }) => id === result.run) : undefined;
          return (
            <tr key={`${result.run}/${result.entry}/${result.key}`} className={change && 'changed'}>
              <th scope="row">
                {run !== undefined && `${run.name}: `}
                {result.name}
              </th>
              <td className="number">{result.text}</td>
              <td className="number">{change === undefined ? result.text : (change.now ?? '–')}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}
