import { useEffect, useId, useState } from 'react';
import { Form } from 'react-bootstrap';

interface Props {
  label: string;
  /** Null where nothing was typed yet: the field is empty. */
  value: number | null;
  /** Reads what was typed; throws an error whose message says what is wrong and what would be right. */
  read: (text: string) => number;
  write: (value: number) => string;
  onCommit: (value: number) => void;
  /** What is wrong with a number, or null. */
  check?: (value: number) => string | null;
  id?: string;
  className?: string;
  wide?: boolean;
  disabled?: boolean;
  placeholder?: string;
  autoFocus?: boolean;
}

/** A number that is typed in its own way and takes effect on Enter or on leaving; what is none says so in words. */
export function TypedField({
  label,
  value,
  read,
  write,
  onCommit,
  check,
  id,
  className = '',
  wide = false,
  disabled = false,
  placeholder,
  autoFocus = false,
}: Props) {
  const standing = value === null ? '' : write(value);
  const [text, setText] = useState(standing);
  const [wrong, setWrong] = useState<string | null>(null);
  const sentenceId = useId();
  useEffect(() => {
    setText(standing);
    setWrong(null);
  }, [standing]);
  const commit = () => {
    if (text === standing) {
      setWrong(null);
      return;
    }
    let number: number;
    try {
      number = read(text);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error));
      return;
    }
    const fault = check?.(number) ?? null;
    setWrong(fault);
    if (fault !== null) return;
    setText(write(number));
    if (number !== value) onCommit(number);
  };
  return (
    <span className={`number-field ${className}`}>
      <Form.Control
        id={id}
        className={`number-input ${wide ? 'wide' : ''}`}
        aria-label={label}
        aria-describedby={wrong === null ? undefined : sentenceId}
        isInvalid={wrong !== null}
        aria-invalid={wrong !== null}
        value={text}
        disabled={disabled}
        placeholder={placeholder}
        autoFocus={autoFocus}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          if (event.key === 'Escape') {
            setText(standing);
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
