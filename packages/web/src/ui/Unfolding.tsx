import { type ReactNode, useRef, useState } from 'react';
import { Unfolded } from './Unfolded';

interface Props {
  /** What the editor is called. */
  title: string;
  /** What the button is called, where its face does not say it. */
  label?: string;
  face: ReactNode;
  className?: string;
  disabled?: boolean;
  /** The editor; it may close itself. */
  children: (close: () => void) => ReactNode;
}

/** A button that unfolds an editor below itself; Escape and a press elsewhere fold it up again. */
export function Unfolding({
  title,
  label,
  face,
  className = 'plan-part',
  disabled = false,
  children,
}: Props) {
  const button = useRef<HTMLButtonElement>(null);
  const [isOpen, setIsOpen] = useState(false);
  const close = () => setIsOpen(false);
  return (
    <>
      <button
        ref={button}
        type="button"
        className={className}
        aria-label={label}
        aria-expanded={isOpen}
        disabled={disabled}
        onClick={() => setIsOpen(!isOpen)}
      >
        {face}
      </button>
      <Unfolded
        title={title}
        target={button.current}
        show={isOpen && !disabled}
        placement="bottom-start"
        onHide={close}
      >
        {children(close)}
      </Unfolded>
    </>
  );
}
