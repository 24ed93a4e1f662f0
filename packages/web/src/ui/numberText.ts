import {
  type DisplayedResult,
  type WrittenResult,
  grouped,
  printedUnit,
  raised,
  resultText as plainResult,
  resultInUnit,
  unitShown,
  writeResult as plainWritten,
} from '@heuristor/core';
import { decimalSign } from './decimalSign';

/** A text with its numbers as people write them where they live: a point between digits is a comma where they chose that. */
export const written = (text: string): string =>
  decimalSign() === '.' ? text : text.replace(/(\d)\.(?=\d)/g, '$1,');

/** The same in TeX, where a comma would have a gap behind it. */
export const writtenTex = (tex: string): string =>
  decimalSign() === '.' ? tex : tex.replace(/(\d)\.(?=\d)/g, '$1{,}');

const withMinus = (text: string) => written(text.replace('-', '−'));

/** A number with so many significant digits at most, without zeros that say nothing. */
export const shortText = (value: number, digits = 4): string =>
  withMinus(String(Number(value.toPrecision(digits))));

/** A number with so many decimals. */
export const fixedText = (value: number, decimals: number): string => withMinus(value.toFixed(decimals));

/** A value rounded to its uncertainty, in parts. */
export function writeResult(...asked: Parameters<typeof plainWritten>): WrittenResult {
  const { value, uncertainty, exponent } = plainWritten(...asked);
  return {
    value: written(value),
    uncertainty: uncertainty === null ? null : written(uncertainty),
    exponent,
  };
}

/** A value rounded to its uncertainty, as one line. */
export const resultText = (...asked: Parameters<typeof plainResult>): string =>
  written(plainResult(...asked));

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

/** A result as one line with its unit, in that which was chosen for it or which reads well. */
export function resultWithUnit(result: DisplayedResult, chosen: string | undefined): string {
  const { value, halfWidth, roundTo, unit } = resultInUnit(result, unitShown(result, chosen));
  const body =
    halfWidth === null && roundTo !== null
      ? lineOf(writeResult(value, roundTo))
      : resultText(value, halfWidth);
  return `${body} ${printedUnit(unit)}`.trim();
}

const lineOf = ({ value, exponent }: WrittenResult) =>
  exponent === 0 ? grouped(value) : `${grouped(value)} × 10${raised(exponent)}`;
