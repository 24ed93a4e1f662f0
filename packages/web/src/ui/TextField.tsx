import { useEffect, useId, useRef, useState } from 'react';
import { Form } from 'react-bootstrap';

interface Props {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  maxLength: number;
  id?: string;
  className?: string;
  placeholder?: string;
  /** What is wrong with a text, and what would be right; null where it is right. */
  check?: (text: string) => string | null;
}

/** A text that takes effect on Enter or on leaving; Escape keeps the old one, and nothing is a text too. */
export function TextField({
  label,
  value,
  onCommit,
  maxLength,
  id,
  className = '',
  placeholder,
  check,
}: Props) {
  const [text, setText] = useState(value);
  const [wrong, setWrong] = useState<string | null>(null);
  const sentenceId = useId();
  /** What has taken effect, though its answer may not be here yet. */
  const committed = useRef(value);
  useEffect(() => {
    setText(value);
    setWrong(null);
    committed.current = value;
  }, [value]);
  const commit = () => {
    const fault = text === value ? null : (check?.(text) ?? null);
    setWrong(fault);
    if (fault !== null || text === value) return;
    committed.current = text;
    onCommit(text);
  };
  // What was typed and not left yet is not lost where the field goes, as when another run comes to the front.
  const going = useRef<() => void>(() => undefined);
  useEffect(() => {
    going.current = () => {
      const isNew = text !== value && text !== committed.current;
      if (isNew && (check?.(text) ?? null) === null) onCommit(text);
    };
  });
  useEffect(() => () => going.current(), []);
  return (
    <span className="text-field">
      <Form.Control
        id={id}
        size="sm"
        className={className}
        aria-label={label}
        value={text}
        isInvalid={wrong !== null}
        aria-invalid={wrong !== null}
        aria-describedby={wrong === null ? undefined : sentenceId}
        maxLength={maxLength}
        placeholder={placeholder}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            setText(value);
            setWrong(null);
          }
        }}
      />
      {wrong !== null && (
        <Form.Control.Feedback type="invalid" tooltip id={sentenceId}>
          {wrong}
        </Form.Control.Feedback>
      )}
    </span>
  );
}
