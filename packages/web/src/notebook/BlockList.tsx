import { DndContext, type DragEndEvent, closestCenter } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Button, Dropdown } from 'react-bootstrap';
import { GripVertical, PlusLg, QuestionSquare } from 'react-bootstrap-icons';
import { useSortSensors } from '../ui/useSortSensors';
import { onPage } from '../investigation/sides';
import { FixedMenu } from '../ui/FixedMenu';
import { goToBlock } from './BlockFrame';
import { blockViews } from './blocks';
import { useNotebook, useNotebookState } from './context';
import { type BlockKind, type SeenBlock } from './document/notebookDocument';
import { FilmButton } from './films/FilmButton';
import { useNewBlocks } from './newBlocks';
import { PhotographButton } from './photographs/PhotographButton';

/** Every block by what it is called: pressed it is gone to, dragged it is moved. */
export function BlockList() {
  const notebook = useNotebook();
  const newBlocks = useNewBlocks();
  const blocks = useNotebookState((state) => state.blocks);
  const present = blocks.filter(({ isRemoved }) => !isRemoved);
  const removed = blocks.filter(({ isRemoved }) => isRemoved);
  const sensors = useSortSensors();
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null) notebook.moveTo(String(active.id), String(over.id));
  };
  return (
    <>
      <h2 className="blocks-title">Blocks</h2>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={present.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <ol className="block-list">
            {present.map((block) => (
              <BlockName key={block.id} block={block} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {notebook.mayWrite && (
        <div className="new-blocks">
          {newBlocks.map(({ title, called, block }) => (
            <Button key={title} variant="plain" onClick={() => onPage(() => notebook.add(block, called))}>
              <PlusLg aria-hidden /> {title}
            </Button>
          ))}
          <PhotographButton />
          <FilmButton />
        </div>
      )}
      {notebook.mayWrite && removed.length > 0 && (
        <Dropdown>
          <Dropdown.Toggle variant="bare">{removed.length} removed</Dropdown.Toggle>
          <FixedMenu className="tall-menu">
            <Dropdown.Header>Put back</Dropdown.Header>
            {removed.map(({ id, kind }) =>
              kind === null ? null : (
                <Dropdown.Item key={id} as="button" onClick={() => notebook.putBack(id)}>
                  <Name id={id} kind={kind} />
                </Dropdown.Item>
              ),
            )}
          </FixedMenu>
        </Dropdown>
      )}
    </>
  );
}

function BlockName({ block: { id, kind } }: { block: SeenBlock }) {
  const { mayWrite } = useNotebook();
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition } = useSortable({
    id,
    disabled: !mayWrite,
  });
  const Icon = kind === null ? QuestionSquare : blockViews[kind].Icon;
  return (
    <li ref={setNodeRef} style={{ transform: CSS.Translate.toString(transform), transition }}>
      <Button variant="plain" className="block-name" onClick={() => onPage(() => goToBlock(id))}>
        <Icon aria-hidden /> <span>{kind === null ? 'Unknown block' : <Name id={id} kind={kind} />}</span>
      </Button>
      {mayWrite && (
        <Button
          variant="grip"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label="Move this block"
          title="Drag to reorder; or Space, arrows, Space"
        >
          <GripVertical aria-hidden />
        </Button>
      )}
    </li>
  );
}

function Name({ id, kind }: { id: string; kind: BlockKind }) {
  return blockViews[kind].useName(id);
}
