import { useEffect, useState } from 'react';

interface Props {
  label: string;
  value: number;
  digits?: number;
  onCommit: (value: number) => void;
  id?: string;
}

const shown = (value: number, digits: number) => String(Number(value.toPrecision(digits))).replace('-', '−');

/** A number that is typed and takes effect on Enter or on leaving; what is no number turns back with a hint. */
export function NumberField({ label, value, digits = 6, onCommit, id }: Props) {
  const [text, setText] = useState(shown(value, digits));
  const [wrong, setWrong] = useState(false);
  useEffect(() => setText(shown(value, digits)), [value, digits]);
  const commit = () => {
    const number = Number(text.trim().replace('−', '-').replace(',', '.'));
    const good = text.trim() !== '' && Number.isFinite(number);
    setWrong(!good);
    if (!good) return;
    if (shown(number, 15) !== shown(value, 15) && text !== shown(value, digits)) onCommit(number);
    setText(shown(number, digits));
  };
  return (
    <input
      id={id}
      className={`form-control number-input ${wrong ? 'is-invalid' : ''}`}
      aria-label={label}
      title={wrong ? 'Type a number like 1.25' : undefined}
      inputMode="decimal"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
        if (event.key === 'Escape') setText(shown(value, digits));
      }}
    />
  );
}
