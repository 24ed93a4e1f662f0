import { canConvert, conversionFactor } from '../units/conversion';
import { siPrefixes, withPlainMicro } from '../units/prefixes';
import { type Unit, parseUnit, sameUnit } from '../units/unit';

export type DecimalSign = '.' | ',';

const zero = 48;
const nine = 57;
const isDigit = (code: number) => code >= zero && code <= nine;

/** A plain decimal number without anything else, fast; NaN for all else. */
function plainNumber(text: string): number {
  const length = text.length;
  const last = text.charCodeAt(length - 1);
  const first = text.charCodeAt(0);
  if (!isDigit(last) && last !== 46) return NaN;
  if (!isDigit(first) && first !== 45 && first !== 43 && first !== 46) return NaN;
  // Number() would also read 0x10, 0b1 and 0o7.
  if (first === zero && length > 1 && text.charCodeAt(1) > nine && (text.charCodeAt(1) | 32) !== 101)
    return NaN;
  return Number(text);
}

/**
 * Reads one cell: plain, exponential ("1.2E-03") or engineering notation with a prefix ("4.7k"), a true minus sign allowed,
 * thousands grouped by the sign that is not the decimal one. A suffix that is the column's own unit, or one that converts
 * into it, is that unit and no prefix: "12.5 m" under x / m is 12.5 metres, "12.5 mm" 0.0125. An empty cell or "NaN" is a
 * missing reading, and so is "NA" or a dash. Undefined for anything else, numbers beyond the range of a double included.
 */
export function parseCell(text: string, decimal: DecimalSign, unit: Unit): number | undefined {
  const trimmed = text.trim();
  if (trimmed === '' || isMissing(trimmed)) return NaN;
  let plain = trimmed.charCodeAt(0) === 0x2212 ? `-${trimmed.slice(1)}` : trimmed;
  plain = withoutSpaces(plain);
  plain = decimal === ',' ? withoutGroups(plain, '.').replace(',', '.') : withoutGroups(plain, ',');
  const direct = plainNumber(plain);
  if (direct === direct) return Number.isFinite(direct) ? direct : undefined;
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+))(e[+−-]?\d+)?(\s*)(\D.*)?$/i.exec(plain);
  if (match === null) return undefined;
  const [, digits, exponent = '', , suffix] = match;
  const value = Number(`${digits}${exponent.replace('−', '-')}`);
  if (!Number.isFinite(value)) return undefined;
  if (suffix === undefined) return value;
  const factor = factorOf(suffix, unit);
  if (factor !== undefined) return value * factor;
  const code = withPlainMicro(suffix);
  const power = exponent === '' && Object.hasOwn(siPrefixes, code) ? siPrefixes[code] : undefined;
  // One conversion of the whole text, so that 1.2m is the double nearest to 0.0012.
  return power === undefined ? undefined : Number(`${digits}e${power}`);
}

/** How tables write that there is no reading. Common practice, no source. */
const isMissing = (text: string) =>
  !isDigit(text.charCodeAt(text.length - 1)) &&
  /^(nan|#?n\/a|n\.?a\.?|null|none|missing|-+|–|—|\*+|#+)$/i.test(text);

/** Digits in groups of three, with spaces of any width or apostrophes between them (ISO 80000-1, 7.3.1). */
const spacedGroups = /^[+-]?\d{1,3}(?:[ \u00a0\u2009\u202f'’]\d{3})+(?!\d)/;
const withoutSpaces = (text: string): string =>
  spacedGroups.test(text) ? text.replace(spacedGroups, (digits) => digits.replace(/[^\d+-]/g, '')) : text;

/** "1,234,567.8" without its groups of three; left as it is where the groups are none. */
function withoutGroups(text: string, sign: '.' | ','): string {
  if (!text.includes(sign)) return text;
  const grouped = sign === ',' ? /^[+-]?\d{1,3}(,\d{3})+(\.|$|[eE])/ : /^[+-]?\d{1,3}(\.\d{3})+(,|$|[eE])/;
  return grouped.test(text) ? text.replaceAll(sign, '') : text;
}

/** What a suffix makes of a number in the column's unit, where it is a unit that converts into it. */
function factorOf(suffix: string, unit: Unit): number | undefined {
  if (unit.length === 0) return undefined;
  const written = parseUnit(suffix);
  if (sameUnit(written, unit)) return 1;
  return canConvert(written, unit) ? conversionFactor(written, unit) : undefined;
}

/** What a cell says about the decimal sign of its file. */
export type DecimalEvidence = DecimalSign | 'either' | null;

/**
 * Which decimal sign a cell speaks for: "0,5" for the comma, "1.25" and "1,234.5" for the point; "1,234" may be either, and
 * so may "1.234" where a comma is used elsewhere.
 */
export function decimalEvidence(cell: string): DecimalEvidence {
  const text = withoutSpaces(cell.trim());
  if (!/^[+\-−]?[\d.,]+/.test(text)) return null;
  const digits = /^[+\-−]?([\d.,]+)/.exec(text)?.[1] ?? '';
  const [comma, point] = [digits.lastIndexOf(','), digits.lastIndexOf('.')];
  if (comma < 0 && point < 0) return null;
  if (comma >= 0 && point >= 0) return comma > point ? ',' : '.';
  const sign = comma >= 0 ? ',' : '.';
  const parts = digits.split(sign);
  if (parts.length > 2)
    return parts.slice(1).every((part) => part.length === 3) ? (sign === ',' ? '.' : ',') : null;
  const isGroup = parts[1].length === 3 && /^[1-9]\d{0,2}$/.test(parts[0]);
  return isGroup ? 'either' : sign;
}
