import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { useSession } from '../session/context';
import { withBorderMoved } from '../session/pages';

const keyStep = 0.05;

interface Props {
  panel: string;
  symbol: string;
  /** How high the trace stands beside the next one, in per cent of both. */
  share: number;
}

/** The border under a trace: dragged, it gives one trace what it takes from the other. */
export function TraceBorder({ panel, symbol, share }: Props) {
  const session = useSession();
  const last = useRef<number | null>(null);
  const moveBy = (share: number) =>
    session.changePage((page, runs) => withBorderMoved(page, runs, panel, share));
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const { current } = last;
    const upper = event.currentTarget.closest('.trace');
    const lower = upper?.nextElementSibling;
    if (current === null || upper == null || lower == null) return;
    const both = upper.getBoundingClientRect().height + lower.getBoundingClientRect().height;
    session.move();
    moveBy((event.clientY - current) / both);
    last.current = event.clientY;
  };
  const letGo = () => {
    if (last.current === null) return;
    last.current = null;
    session.settle();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (direction === 0) return;
    event.preventDefault();
    event.stopPropagation();
    moveBy(direction * keyStep);
  };
  return (
    <div
      className="trace-border"
      role="separator"
      aria-orientation="horizontal"
      aria-label={`Lower border of the trace of ${symbol}`}
      aria-valuenow={Math.round(share)}
      tabIndex={0}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        last.current = event.clientY;
      }}
      onPointerMove={onPointerMove}
      onPointerUp={letGo}
      onPointerCancel={letGo}
      onKeyDown={onKeyDown}
    />
  );
}
