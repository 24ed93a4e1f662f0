import { pow } from '../elementary';
/** A result as a physicist writes it, in parts, so that a screen can set it in its own way. */
export interface WrittenResult {
  /** Digits of the value, with a true minus sign. */
  value: string;
  /** Digits of the standard uncertainty to the same decimal place, or null where there is none. */
  uncertainty: string | null;
  /** Power of ten common to both, 0 for none. */
  exponent: number;
}

const minus = (text: string) => text.replace('-', '−');
/** A double holds so many significant digits; more would be made up. */
const mostDigits = 15;

/** Position of the last of `figures` significant digits: 0.0123 with two figures → −4 (10⁻⁴ is their last place). */
function lastPlace(magnitude: number, figures: number): number {
  // Through toExponential, so that 0.0995 with two figures counts as 0.10.
  return Number(magnitude.toExponential(figures - 1).split('e')[1]) - figures + 1;
}

/** Numbers below this power of ten are written out. */
const plainBelow = 6;

/** Numbers below a hundredth are written with so many decimals at most. */
const mostDecimals = 6;

const magnitudeOf = (number: number) => Number(number.toExponential(mostDigits - 1).split('e')[1]);

/** Rounded to a place left of the decimal point; what is right of it is left to the number of decimals. */
const roundedTo = (number: number, place: number): number =>
  place > 0 ? Math.round(number / pow(10, place)) * pow(10, place) : number;

/** Digits in groups of three before the decimal sign, where there are five or more (ISO 80000-1, 7.3.1). */
export const grouped = (digits: string): string =>
  digits.replace(/^−?\d{5,}/, (whole) => whole.replace(/(?<=\d)(?=(\d{3})+$)/g, '\u202f'));

/**
 * Rounds a value to two significant figures of its standard uncertainty (JCGM 100:2008, 7.2.6). Without an uncertainty, or
 * with one that is below the last digit of a double and therefore only rounding, to `figures` significant digits. Very large
 * or small numbers share one power of ten.
 */
export function writeResult(value: number, standardUncertainty: number | null, figures = 4): WrittenResult {
  if (!Number.isFinite(value)) return { value: '—', uncertainty: null, exponent: 0 };
  const known =
    standardUncertainty !== null &&
    Number.isFinite(standardUncertainty) &&
    standardUncertainty > Math.abs(value) * pow(10, -mostDigits) &&
    standardUncertainty > 0;
  const place = known
    ? lastPlace(standardUncertainty, 2)
    : value === 0
      ? 0
      : lastPlace(Math.abs(value), figures);
  const largest = Math.max(Math.abs(value), known ? standardUncertainty : 0);
  // As it will stand there: 999 999.7 to the nearest whole number is 10⁶.
  const magnitude = largest === 0 ? 0 : magnitudeOf(roundedTo(largest, place));
  // Small numbers with many zeros are read by nobody.
  const isTiny = magnitude <= -5 || (magnitude <= -3 && -place > mostDecimals);
  const exponent = magnitude >= plainBelow || isTiny ? magnitude : 0;
  const decimals = Math.min(Math.max(exponent - place, 0), 20);
  const scaled = (number: number) => minus((roundedTo(number, place) / pow(10, exponent)).toFixed(decimals));
  return {
    value: withoutMinusZero(scaled(value)),
    uncertainty: known ? scaled(standardUncertainty) : null,
    exponent,
  };
}

const withoutMinusZero = (text: string) => (/^−0(\.0*)?$/.test(text) ? text.slice(1) : text);

/** An exponent in raised digits. */
export const raised = (exponent: number): string =>
  [...String(exponent)].map((digit) => '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(digit)] ?? '⁻').join('');

/** The result as one line of text: "1.1862 ± 0.0041" or "(1.23 ± 0.12) × 10⁻⁵". */
export function resultText(value: number, standardUncertainty: number | null, figures = 4): string {
  const written = writeResult(value, standardUncertainty, figures);
  const digits = grouped(written.value);
  const body = written.uncertainty === null ? digits : `${digits} ± ${grouped(written.uncertainty)}`;
  if (written.exponent === 0) return body;
  return written.uncertainty === null
    ? `${body} × 10${raised(written.exponent)}`
    : `(${body}) × 10${raised(written.exponent)}`;
}
