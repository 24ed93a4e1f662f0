import { type useSortable } from '@dnd-kit/sortable';
import { type ReactNode } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { GripVertical, ThreeDots } from 'react-bootstrap-icons';
import { FixedMenu } from './FixedMenu';

type Sortable = ReturnType<typeof useSortable>;

interface Props {
  sortable: Pick<Sortable, 'setActivatorNodeRef' | 'attributes' | 'listeners'>;
  gripLabel: string;
  menuLabel: string;
  /** The items of the menu. */
  children: ReactNode;
}

/** What a card has at the end of its head: the handle to move it by, and its menu. */
export function CardTools({ sortable, gripLabel, menuLabel, children }: Props) {
  const { setActivatorNodeRef, attributes, listeners } = sortable;
  return (
    <>
      <Button
        variant="grip"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={gripLabel}
        title="Drag to reorder"
      >
        <GripVertical aria-hidden />
      </Button>
      <Dropdown align="end">
        <Dropdown.Toggle variant="bare" className="no-caret" aria-label={menuLabel}>
          <ThreeDots aria-hidden />
        </Dropdown.Toggle>
        <FixedMenu>{children}</FixedMenu>
      </Dropdown>
    </>
  );
}
