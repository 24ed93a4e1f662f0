import { type useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type ReactNode } from 'react';
import { ChevronDown, ChevronRight } from 'react-bootstrap-icons';
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
  /** What came of it, in one value. */
  value: ReactNode;
  /** Whether all it says is seen; null where its line says all. */
  isOpen: boolean | null;
  onToggle: () => void;
  /** What tests and other parts of a page know it by. */
  data?: Readonly<Record<`data-${string}`, string>>;
  /** What stands under its line. */
  children: ReactNode;
}

/** A card whose line says what it is about and what came of it; the rest unfolds. It has a menu, and a handle to move it by. */
export function ResultCard({
  title,
  sortable,
  menuLabel,
  menu,
  sentence,
  value,
  isOpen,
  onToggle,
  data,
  children,
}: Props) {
  const { setNodeRef, transform, transition, isDragging } = sortable;
  const Chevron = isOpen === true ? ChevronDown : ChevronRight;
  return (
    <section
      ref={setNodeRef}
      className={`result-card ${isDragging ? 'dragging' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-label={title}
      {...data}
    >
      <div className="card-head">
        {isOpen !== null && (
          <button
            type="button"
            className="card-unfold"
            aria-expanded={isOpen}
            aria-label={`All about ${title}`}
            title={isOpen ? 'Fold it to one line' : 'Show all about it'}
            onClick={onToggle}
          >
            <Chevron aria-hidden />
          </button>
        )}
        <span className="card-line">
          <span
            className="sentence"
            onClick={({ target }) => {
              const isTyped = target instanceof Element && target.closest('input, textarea') !== null;
              if (isOpen !== null && !isTyped) onToggle();
            }}
          >
            {sentence}
          </span>
          {value}
        </span>
        <CardTools sortable={sortable} gripLabel="Move this entry" menuLabel={menuLabel}>
          {menu}
        </CardTools>
      </div>
      {children}
    </section>
  );
}
