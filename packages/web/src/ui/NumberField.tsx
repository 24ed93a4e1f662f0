import { useEffect, useId, useState } from 'react';
import { Form } from 'react-bootstrap';

interface Props {
  label: string;
  value: number;
  digits?: number;
  onCommit: (value: number) => void;
  id?: string;
  /** What is wrong with a number, or null. */
  check?: (value: number) => string | null;
  className?: string;
}

const shown = (value: number, digits: number) => String(Number(value.toPrecision(digits))).replace('-', '−');

/** A number that is typed and takes effect on Enter or on leaving; what is none says so, and what would be right. */
export function NumberField({ label, value, digits = 6, onCommit, id, check, className = '' }: Props) {
  const [text, setText] = useState(shown(value, digits));
  const [wrong, setWrong] = useState<string | null>(null);
  const sentenceId = useId();
  useEffect(() => {
    setText(shown(value, digits));
    setWrong(null);
  }, [value, digits]);
  const commit = () => {
    const number = Number(text.trim().replace('−', '-').replace(',', '.'));
    const isNumber = text.trim() !== '' && Number.isFinite(number);
    const fault = isNumber ? (check?.(number) ?? null) : `“${text.trim()}” is no number. Type one like 1.25.`;
    setWrong(fault);
    if (fault !== null) return;
    if (shown(number, 15) !== shown(value, 15) && text !== shown(value, digits)) onCommit(number);
    setText(shown(number, digits));
  };
  return (
    <span className={`number-field ${className}`}>
      <Form.Control
        id={id}
        className="number-input"
        aria-label={label}
        aria-describedby={wrong === null ? undefined : sentenceId}
        isInvalid={wrong !== null}
        aria-invalid={wrong !== null}
        inputMode="decimal"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          if (event.key === 'Escape') {
            setText(shown(value, digits));
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
