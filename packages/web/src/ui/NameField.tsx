import { useEffect, useState } from 'react';

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
  useEffect(() => setText(value), [value]);
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
      autoFocus={autoFocus}
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
