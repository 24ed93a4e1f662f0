import { useEffect, useRef, useState } from 'react';

interface Props {
  label: string;
  value: string;
  className?: string;
  allowEmpty?: boolean;
  onCommit: (value: string) => void;
  onDone?: () => void;
  autoFocus?: boolean;
}

/** A name that takes effect on Enter or on leaving; Escape keeps the old one. */
export function NameField({
  label,
  value,
  className = 'form-control',
  allowEmpty = false,
  onCommit,
  onDone,
  autoFocus,
}: Props) {
  const [text, setText] = useState(value);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => setText(value), [value]);
  useEffect(() => {
    if (autoFocus !== true) return;
    // The menu that led here gives the focus back to its button first.
    const timer = setTimeout(() => field.current?.select(), 30);
    return () => clearTimeout(timer);
  }, [autoFocus]);
  const commit = () => {
    const name = text.trim();
    if (name !== value && (name !== '' || allowEmpty)) onCommit(name);
    else setText(value);
    onDone?.();
  };
  return (
    <input
      className={className}
      aria-label={label}
      value={text}
      ref={field}
      maxLength={80}
      onChange={(event) => setText(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') {
          setText(value);
          onDone?.();
        }
      }}
    />
  );
}
