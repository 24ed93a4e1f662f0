import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Form, Modal } from 'react-bootstrap';

/** The menu that led here gives the focus back to its button first. */
const menuRestMilliseconds = 60;

interface Props {
  title: ReactNode;
  /** What is typed, read out by screen readers and shown in the empty field. */
  label: string;
  placeholder: string;
  size: 'lg' | 'xl';
  className?: string;
  /** Whether the field has the focus from the beginning. */
  isTypedAtOnce: boolean;
  onClose: () => void;
  /** Enter takes the first choice that what was typed leaves. */
  onEnter?: (typed: string) => void;
  /** The arrow keys move among the choices. */
  onMove?: (by: 1 | -1) => void;
  onTyped?: () => void;
  /** Id of the choice that Enter takes. */
  active?: string;
  /** What stands over the field. */
  above?: ReactNode;
  /** What stands beside the field. */
  beside?: (typed: string) => ReactNode;
  /** The choices that what was typed leaves. */
  children: (typed: string) => ReactNode;
}

/** Something to choose by sight, over the page; typing leaves fewer to choose from. */
export function Palette({
  title,
  label,
  placeholder,
  size,
  className,
  isTypedAtOnce,
  onClose,
  onEnter,
  onMove,
  onTyped,
  active,
  above,
  beside,
  children,
}: Props) {
  const [typed, setTyped] = useState('');
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!isTypedAtOnce) return;
    const timer = setTimeout(() => field.current?.focus(), menuRestMilliseconds);
    return () => clearTimeout(timer);
  }, [isTypedAtOnce]);
  return (
    <Modal show onHide={onClose} size={size} scrollable aria-labelledby="palette-title" animation={false}>
      <Modal.Header closeButton>
        <Modal.Title id="palette-title">{title}</Modal.Title>
      </Modal.Header>
      <Modal.Body className={className}>
        {above}
        <div className="palette-ask">
          <Form.Control
            ref={field}
            aria-label={label}
            placeholder={placeholder}
            value={typed}
            spellCheck={false}
            aria-activedescendant={active}
            onChange={(event) => {
              setTyped(event.target.value);
              onTyped?.();
            }}
            onKeyDown={(event) => {
              if ((event.key === 'ArrowDown' || event.key === 'ArrowUp') && onMove !== undefined) {
                event.preventDefault();
                onMove(event.key === 'ArrowDown' ? 1 : -1);
              }
              if (event.key !== 'Enter' || onEnter === undefined) return;
              // The focus goes back at once, and the key would press what it goes to.
              event.preventDefault();
              onEnter(typed);
            }}
          />
          {beside?.(typed)}
        </div>
        {children(typed)}
      </Modal.Body>
    </Modal>
  );
}
