import { type PinContent } from '@heuristor/contracts';
import { WrittenTable } from '../written/WrittenTable';
import { pinnedTable } from './pinWords';

/** The results that stood beside a picture: of one run as a line, of several as a table. */
export function PinnedResults({ content }: { content: PinContent }) {
  if (content.runs.length > 1) return <WrittenTable table={pinnedTable(content)} />;
  return (
    <ul className="pin-results">
      {content.results.map(({ run, entry, key, name, text }) => (
        <li key={`${run}/${entry}/${key}`}>
          {name} = <span className="number">{text}</span>
        </li>
      ))}
    </ul>
  );
}
