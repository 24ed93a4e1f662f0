import { leadingNumber } from '@heuristor/core';
import { TypedField } from './TypedField';
import { shortText, written } from './numberText';

interface Props {
  label: string;
  value: number;
  digits?: number;
  /** The power of ten of the last place that is shown, instead of so many digits. */
  place?: number;
  onCommit: (value: number) => void;
  id?: string;
  /** What is wrong with a number, or null. */
  check?: (value: number) => string | null;
  className?: string;
}

/** @throws Error that says what would be right */
function readNumber(text: string): number {
  const found = leadingNumber(text);
  if (found === null || found.rest !== '')
    throw new Error(`“${text.trim()}” is no number. Type one like ${written('1.25')}.`);
  return found.value;
}

/** A plain number that is typed. */
export function NumberField({ digits = 6, place, ...field }: Props) {
  return (
    <TypedField
      {...field}
      read={readNumber}
      write={(value) =>
        place === undefined
          ? shortText(value, digits)
          : shortText(Number(value.toFixed(Math.max(-place, 0))), 15)
      }
    />
  );
}
