import { type useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type ReactNode } from 'react';
import { CardTools } from './CardTools';

interface Props {
  /** Read out by screen readers. */
  title: string;
  sortable: ReturnType<typeof useSortable>;
  /** Of the menu: "More for the swing". */
  menuLabel: string;
  /** The items of the menu. */
  menu: ReactNode;
  /** What the card is about, as a sentence. */
  sentence: ReactNode;
  /** What tests and other parts of a page know it by. */
  data?: Readonly<Record<`data-${string}`, string>>;
  /** What was worked out. */
  children: ReactNode;
}

/** A card with a sentence, what came of it, a menu, and a handle to move it by. */
export function ResultCard({ title, sortable, menuLabel, menu, sentence, data, children }: Props) {
  const { setNodeRef, transform, transition, isDragging } = sortable;
  return (
    <section
      ref={setNodeRef}
      className={`result-card ${isDragging ? 'dragging' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-label={title}
      {...data}
    >
      <div className="card-head">
        <span className="sentence">{sentence}</span>
        <CardTools sortable={sortable} gripLabel="Move this entry" menuLabel={menuLabel}>
          {menu}
        </CardTools>
      </div>
      {children}
    </section>
  );
}
