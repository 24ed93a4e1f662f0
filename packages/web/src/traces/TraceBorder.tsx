import { type KeyboardEvent } from 'react';
import { useSession } from '../investigation/context';
import { useDrag } from '../ui/useDrag';

const keyStep = 0.05;

interface Props {
  label: string;
  /** How high the upper part stands beside the lower one, in per cent of both. */
  share: number;
  /** The two parts that it parts, as they stand on the page. */
  parts: (border: Element) => readonly [Element | null | undefined, Element | null | undefined];
  /** Gives the upper part so much more, as a share of both. */
  onMove: (share: number) => void;
}

/** The border between two parts of a page: dragged, it gives one of them what it takes from the other. */
export function TraceBorder({ label, share, parts, onMove }: Props) {
  const session = useSession();
  const { handlers } = useDrag({
    shortest: 0,
    begin: () => 'held' as const,
    move: (_, { since }, { currentTarget }) => {
      const [upper, lower] = parts(currentTarget);
      if (upper == null || lower == null) return;
      const both = upper.getBoundingClientRect().height + lower.getBoundingClientRect().height;
      session.move();
      onMove(since.y / both);
    },
    drop: () => session.settle(),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (direction === 0) return;
    event.preventDefault();
    event.stopPropagation();
    onMove(direction * keyStep);
  };
  return (
    <div
      className="trace-border"
      role="separator"
      aria-orientation="horizontal"
      aria-label={label}
      aria-valuenow={Math.round(share)}
      tabIndex={0}
      {...handlers}
      onKeyDown={onKeyDown}
    />
  );
}
