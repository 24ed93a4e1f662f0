import { useEffect, useId, useRef, useState } from 'react';
import { Form } from 'react-bootstrap';

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
  const [text, setText] = useState(value);
  const [isEmpty, setIsEmpty] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const first = useRef(value);
  const sentenceId = useId();
  useEffect(() => setText(value), [value]);
  useEffect(() => {
    if (autoFocus !== true) return;
    // The menu that led here gives the focus back to its button first.
    const timer = setTimeout(() => {
      // Whoever is faster has typed already.
      if (field.current?.value === first.current) field.current.select();
    }, 30);
    return () => clearTimeout(timer);
  }, [autoFocus]);
  const commit = () => {
    const name = text.trim();
    if (name !== value && (name !== '' || allowEmpty)) onCommit(name);
    else setText(value);
    setIsEmpty(false);
    onDone?.();
  };
  return (
    <>
      <Form.Control
        className={className}
        aria-label={label}
        aria-describedby={isEmpty ? sentenceId : undefined}
        aria-invalid={isEmpty}
        isInvalid={isEmpty}
        value={text}
        ref={field}
        maxLength={maxLength}
        list={suggestions}
        onChange={(event) => {
          setText(event.target.value);
          setIsEmpty(!allowEmpty && event.target.value.trim() === '');
        }}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            setText(value);
            setIsEmpty(false);
            onDone?.();
          }
        }}
      />
      {isEmpty && (
        <Form.Control.Feedback type="invalid" tooltip id={sentenceId}>
          A name needs at least one letter; without one the old name stays.
        </Form.Control.Feedback>
      )}
    </>
  );
}
