import { Dropdown } from 'react-bootstrap';
import { ThreeDotsVertical } from 'react-bootstrap-icons';
import { FaultBoundary } from '../ui/FaultBoundary';
import { FixedMenu } from '../ui/FixedMenu';
import { tell } from '../ui/noticeStore';
import { AddBlock } from './AddBlock';
import { blockViews } from './blocks';
import { useNotebook } from './context';
import { type SeenBlock } from './document/notebookDocument';

/** A block on the sheet, with what can be done with it as such. */
export function BlockFrame({
  block,
  isFirst,
  isLast,
}: {
  block: SeenBlock;
  isFirst: boolean;
  isLast: boolean;
}) {
  const notebook = useNotebook();
  const { id, kind } = block;
  return (
    <section
      className="block"
      id={`block-${id}`}
      aria-label={kind === null ? 'Block' : blockViews[kind].title}
    >
      {kind === null ? (
        <p className="quiet">This block was made by a newer version of Heuristor. It is kept as it is.</p>
      ) : (
        <FaultBoundary what="This block" className="block-body" resetKeys={[id]}>
          <Body id={id} kind={kind} />
        </FaultBoundary>
      )}
      {notebook.mayWrite && (
        <Dropdown className="block-menu">
          <Dropdown.Toggle variant="bare" className="no-caret" aria-label="What can be done with this block">
            <ThreeDotsVertical aria-hidden />
          </Dropdown.Toggle>
          <FixedMenu>
            <Dropdown.Item as="button" disabled={isFirst} onClick={() => notebook.shift(id, -1)}>
              Move up
            </Dropdown.Item>
            <Dropdown.Item as="button" disabled={isLast} onClick={() => notebook.shift(id, 1)}>
              Move down
            </Dropdown.Item>
            <Dropdown.Divider />
            <AddBlock after={id} />
            <Dropdown.Divider />
            <Dropdown.Item as="button" onClick={() => removeBlock(notebook, id)}>
              Remove
            </Dropdown.Item>
          </FixedMenu>
        </Dropdown>
      )}
    </section>
  );
}

function removeBlock(notebook: ReturnType<typeof useNotebook>, id: string): void {
  notebook.remove(id);
  tell({
    kind: 'news',
    text: 'The block is removed.',
    action: { label: 'Undo', run: () => notebook.host.history.undo() },
  });
}

function Body({ id, kind }: { id: string; kind: NonNullable<SeenBlock['kind']> }) {
  const { View } = blockViews[kind];
  return <View id={id} />;
}

/** A press that leads to a block on the sheet. */
export function goToBlock(id: string): void {
  const block = document.getElementById(`block-${id}`);
  block?.scrollIntoView({ block: 'start', behavior: 'auto' });
  block?.querySelector<HTMLElement>('[contenteditable=true], input')?.focus({ preventScroll: true });
}
