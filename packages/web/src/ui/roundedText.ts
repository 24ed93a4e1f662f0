import { writeResult } from '@heuristor/core';

/** A number with the digits that are worth showing, with a true minus. */
export function roundedText(value: number, roundTo: number): string {
  const result = writeResult(value, roundTo);
  return result.exponent === 0 ? result.value : `${result.value}e${result.exponent}`;
}

/** A number with four or five figures. */
export const fineText = (value: number): string => {
  const size = Math.abs(value);
  return size > 0 && Number.isFinite(size)
    ? roundedText(value, 10 ** (Math.floor(Math.log10(size)) - 3))
    : String(value);
};
