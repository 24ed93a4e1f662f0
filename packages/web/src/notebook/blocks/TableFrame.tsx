import { type ReactNode } from 'react';
import { Button } from 'react-bootstrap';
import { SharedLine } from '../SharedLine';
import { useNotebook } from '../context';
import { Step } from '../document/step';
import { useBlockField } from '../useShared';
import { WrittenTable } from '../written/WrittenTable';
import { type Written, frozenTable } from '../written/table';

interface Props {
  id: string;
  /** What it follows: “the workings”. */
  follows: string;
  /** The table as it is now; what is said in its place where there is none yet. */
  followed: (Written & { isWaiting: boolean }) | string;
  /** What can be chosen beside its title. */
  children?: ReactNode;
}

/** The table as it was frozen; null where it follows. */
export const useFrozen = (id: string): Written | null =>
  frozenTable(useBlockField(useNotebook().document.block(id), 'frozen'));

/** A table that follows, until it is frozen as it is. */
export function TableFrame({ id, follows, followed, children }: Props) {
  const notebook = useNotebook();
  const frozen = useFrozen(id);
  const shown = frozen ?? followed;
  const freeze = (table: Written | null) =>
    notebook.document.set(
      id,
      'frozen',
      table === null ? '' : JSON.stringify({ head: table.head, rows: table.rows }),
      new Step(table === null ? 'let a table follow' : 'freeze a table'),
    );
  const isReady = typeof followed !== 'string' && !followed.isWaiting;
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
          {frozen === null && children}
          {frozen === null ? `follows ${follows}` : 'as it was when it was frozen'}
          {notebook.mayWrite && (
            <Button
              variant="link"
              disabled={frozen === null && !isReady}
              onClick={() => freeze(frozen === null && typeof followed !== 'string' ? followed : null)}
            >
              {frozen === null ? 'Freeze' : 'Follow'}
            </Button>
          )}
        </span>
      </header>
      {typeof shown === 'string' ? <p className="quiet">{shown}</p> : <WrittenTable table={shown} />}
    </figure>
  );
}
