import { type ReactNode, useLayoutEffect, useRef } from 'react';
import { Overlay, Popover } from 'react-bootstrap';

interface Props {
  /** What it is for, for who cannot see where it stands. */
  title: string;
  /** What it belongs to, and where the keys go when it is left, where they came from there. */
  target: HTMLElement | null;
  show: boolean;
  placement: 'bottom-start' | 'right' | 'top';
  onHide: () => void;
  children: ReactNode;
}

/** A small editor that stands beside what it belongs to; a press elsewhere or Escape puts it away. */
export function Unfolded({ title, target, show, placement, onHide, children }: Props) {
  /** Who has opened it with the mouse goes on with the keys of the page: the next Space records. */
  const byKeys = useRef(false);
  useLayoutEffect(() => {
    if (show) byKeys.current = target?.matches(':focus-visible') ?? false;
  }, [show, target]);
  return (
    <Overlay
      target={target}
      show={show}
      placement={placement}
      rootClose
      rootCloseEvent="mousedown"
      transition={false}
      onHide={onHide}
    >
      {(props) => (
        <Popover {...props} className="plan-editor" role="dialog" aria-label={title}>
          <Popover.Body
            onKeyDown={(event) => {
              if (event.key !== 'Escape') return;
              event.stopPropagation();
              onHide();
              if (byKeys.current) target?.focus();
              else if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
            }}
          >
            {children}
          </Popover.Body>
        </Popover>
      )}
    </Overlay>
  );
}
