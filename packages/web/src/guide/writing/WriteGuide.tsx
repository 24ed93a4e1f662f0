import { DndContext, type DragEndEvent, closestCenter } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type GuideItem, mostInGuide } from '@heuristor/contracts';
import { useEffect, useRef } from 'react';
import { Dropdown, Form } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useInvestigation } from '../../investigation/context';
import { newId } from '../../investigation/ids';
import { CardTools } from '../../ui/CardTools';
import { FixedMenu } from '../../ui/FixedMenu';
import { TextField } from '../../ui/TextField';
import { tell } from '../../ui/noticeStore';
import { useSortSensors } from '../../ui/useSortSensors';
import { LongText } from '../LongText';
import { useGuide, useGuideState } from '../context';
import { withItem, withItemChanged, withItemMoved, withoutItem } from '../guideDocument';
import { itemKinds, kindOfItem } from '../kinds';

const menuRestMilliseconds = 60;

/** The guide while the teacher writes it. */
export function WriteGuide() {
  const guide = useGuide();
  const { items, isReleased } = useGuideState((state) => state.guide);
  const sensors = useSortSensors();
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null)
      guide.change((document) => withItemMoved(document, String(active.id), String(over.id)));
  };
  return (
    <div className="guide-items writing">
      <Form.Check
        type="switch"
        id="guide-released"
        label="Answers are released: everybody sees what is right"
        checked={isReleased}
        onChange={({ target }) => guide.change((document) => ({ ...document, isReleased: target.checked }))}
      />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={items.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          {items.map((item, i) => (
            <WrittenItem key={item.id} item={item} number={i + 1} />
          ))}
        </SortableContext>
      </DndContext>
      <AddItem />
    </div>
  );
}

function WrittenItem({ item, number }: { item: GuideItem; number: number }) {
  const guide = useGuide();
  const { history } = useInvestigation();
  const isFresh = useGuideState((state) => state.fresh === item.id);
  const first = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    if (!isFresh) return undefined;
    // The menu that led here gives the focus back to its button first.
    const timer = setTimeout(() => {
      first.current?.querySelector('input')?.focus();
      guide.taken();
    }, menuRestMilliseconds);
    return () => clearTimeout(timer);
  }, [isFresh, guide]);
  const sortable = useSortable({ id: item.id });
  const { setNodeRef, transform, transition } = sortable;
  const { title, Icon, Fields } = kindOfItem(item.kind);
  const change = (patch: Partial<GuideItem>) =>
    guide.change((document) => {
      const present = document.items.find(({ id }) => id === item.id);
      return present === undefined
        ? document
        : withItemChanged(document, { ...present, ...patch } as GuideItem);
    });
  const remove = () => {
    guide.change((document) => withoutItem(document, item.id));
    tell({
      kind: 'news',
      text: `${title} ${number} is removed from the guide.`,
      action: { label: 'Undo', run: () => history.undo() },
    });
  };
  return (
    <section
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className="guide-item"
      aria-label={`${title} ${number}`}
    >
      <div className="guide-item-head">
        <span className="quiet small">
          <span className="guide-number">{number}.</span> <Icon aria-hidden /> {title}
        </span>
        <CardTools sortable={sortable} gripLabel={`Move ${number}`} menuLabel={`More for ${number}`}>
          <Dropdown.Item
            as="button"
            disabled={guide.guide.items.length >= mostInGuide.items}
            onClick={() => guide.change((document) => withItem(document, { ...item, id: newId() }, number))}
          >
            Copy
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={remove}>
            Remove
          </Dropdown.Item>
        </CardTools>
      </div>
      <span ref={first}>
        <TextField
          label={item.kind === 'step' ? `Step ${number}` : `Question ${number}`}
          placeholder={item.kind === 'step' ? 'What is to be done' : 'What is asked'}
          value={item.title}
          maxLength={300}
          onCommit={(text) => change({ title: text })}
        />
      </span>
      <LongText
        label={`Explanation of ${number}`}
        placeholder="Explanation. **bold**, - for a list, $F = ma$ for a formula"
        value={item.text}
        maxLength={8000}
        onCommit={(text) => change({ text })}
      />
      {item.kind !== 'step' && (
        <Form.Check
          type="checkbox"
          id={`${item.id}-before`}
          label="Asked before anything is recorded"
          checked={item.isBefore}
          onChange={({ target }) => change({ isBefore: target.checked })}
        />
      )}
      <Fields item={item} change={change} />
    </section>
  );
}

function AddItem() {
  const guide = useGuide();
  const toggle = useRef<HTMLButtonElement>(null);
  // Who begins a guide goes on here.
  useEffect(() => {
    if (guide.guide.items.length === 0) toggle.current?.focus();
  }, [guide]);
  const isFull = useGuideState((state) => state.guide.items.length >= mostInGuide.items);
  return (
    <Dropdown drop="up">
      <Dropdown.Toggle ref={toggle} variant="plain" className="no-caret" disabled={isFull}>
        <PlusLg aria-hidden /> Add a step or a question
      </Dropdown.Toggle>
      <FixedMenu>
        {Object.values(itemKinds).map(({ kind, title, empty }) => (
          <Dropdown.Item key={kind} as="button" onClick={() => guide.add(empty(newId()))}>
            {title}
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}
