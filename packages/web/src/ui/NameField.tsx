import { useEffect, useRef } from 'react';
import { DraftControl } from './DraftControl';
import { useDraft } from './useDraft';

interface Props {
  label: string;
  value: string;
  className?: string;
  allowEmpty?: boolean;
  onCommit: (value: string) => void;
  onDone?: () => void;
  autoFocus?: boolean;
  maxLength?: number;
  /** Id of a list of names that are often meant. */
  suggestions?: string;
}

/** A name that takes effect on Enter or on leaving; Escape keeps the old one, and an empty one is refused in words. */
export function NameField({
  label,
  value,
  className = '',
  allowEmpty = false,
  onCommit,
  onDone,
  autoFocus,
  maxLength = 80,
  suggestions,
}: Props) {
  const field = useRef<HTMLInputElement>(null);
  const first = useRef(value);
  useEffect(() => {
    if (autoFocus !== true) return;
    // The menu that led here gives the focus back to its button first.
    const timer = setTimeout(() => {
      // Whoever is faster has typed already.
      if (field.current?.value === first.current) field.current.select();
    }, 30);
    return () => clearTimeout(timer);
  }, [autoFocus]);
  const draft = useDraft({
    standing: value,
    isLeftByEnter: true,
    onDone,
    complain: (text) =>
      allowEmpty || text.trim() !== ''
        ? null
        : 'A name needs at least one letter; without one the old name stays.',
    take: (text) => {
      const name = text.trim();
      if (name === value || (name === '' && !allowEmpty)) return { text: value };
      onCommit(name);
      return { text };
    },
  });
  return (
    <DraftControl
      ref={field}
      className={className}
      label={label}
      maxLength={maxLength}
      list={suggestions}
      draft={draft}
    />
  );
}
