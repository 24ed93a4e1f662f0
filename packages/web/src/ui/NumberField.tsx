import { TypedField } from './TypedField';

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

/** @throws Error that says what would be right */
function readNumber(text: string): number {
  const number = Number(text.trim().replace('−', '-').replace(',', '.'));
  if (text.trim() === '' || !Number.isFinite(number))
    throw new Error(`“${text.trim()}” is no number. Type one like 1.25.`);
  return number;
}

/** A plain number that is typed. */
export function NumberField({ digits = 6, ...field }: Props) {
  return (
    <TypedField
      {...field}
      read={readNumber}
      write={(value) => String(Number(value.toPrecision(digits))).replace('-', '−')}
    />
  );
}
