import { type Growing } from '../series/growing';
import { type DecimalSign } from './number';

const space = 32;
const tab = 9;
const lineFeed = 10;
const carriageReturn = 13;
const plus = 43;
const minus = 45;
const zero = 48;
const nine = 57;

/** Whole numbers below this, and powers of ten up to 10²², are doubles without rounding. */
const exactBelow = 2 ** 53;
const powersOfTen = Float64Array.from({ length: 23 }, (_, i) => Number(`1e${i}`));

/** Rows are made room for so many at a time. */
const roomRows = 4096;

/** Where a reading of plain rows stopped, and how many it read. */
export interface PlainRows {
  at: number;
  rows: number;
}

/**
 * Reads rows that hold nothing but plain numbers ("0.125", "-3", "1.25E-2", an empty cell) straight from a text, without making
 * strings of their cells, and stops before the first row that holds anything else or has another number of cells: such a row is
 * for the full reading. A number of up to fifteen or so digits is a whole number over or times an exact power of ten, which
 * rounds right in one step (Clinger 1990, "How to read floating point numbers accurately"); any other is left to the language.
 */
export function takePlainRows(
  text: string,
  from: number,
  separator: string,
  decimal: DecimalSign,
  columns: readonly Growing[],
  wholeUpTo: number,
): PlainRows {
  const [separatorCode, decimalCode] = [separator.charCodeAt(0), decimal.charCodeAt(0)];
  const width = columns.length;
  const start = columns[0].length;
  const row = new Float64Array(width);
  let views: Float64Array[] = [];
  let room = start;
  let rows = 0;
  let at = from;
  reading: while (at < wholeUpTo) {
    let i = at;
    let isFilled = false;
    for (let c = 0; c < width; c++) {
      let code = text.charCodeAt(i);
      while (code === space || (code === tab && separatorCode !== tab)) code = text.charCodeAt(++i);
      const begin = i;
      const isNegative = code === minus;
      if (isNegative || code === plus) code = text.charCodeAt(++i);
      let mantissa = 0;
      let digits = 0;
      let decimals = 0;
      for (; code >= zero && code <= nine; code = text.charCodeAt(++i), digits++)
        mantissa = mantissa * 10 + code - zero;
      if (code === decimalCode) {
        code = text.charCodeAt(++i);
        for (; code >= zero && code <= nine; code = text.charCodeAt(++i), decimals++)
          mantissa = mantissa * 10 + code - zero;
      }
      let exponent = 0;
      if (digits + decimals > 0 && (code | 32) === 101) {
        code = text.charCodeAt(++i);
        const isSmall = code === minus;
        if (isSmall || code === plus) code = text.charCodeAt(++i);
        const first = i;
        for (; code >= zero && code <= nine; code = text.charCodeAt(++i))
          exponent = exponent * 10 + code - zero;
        if (i === first) break reading;
        if (isSmall) exponent = -exponent;
      }
      const end = i;
      if (digits + decimals === 0) {
        if (end > begin) break reading;
        row[c] = NaN;
      } else {
        const power = exponent - decimals;
        let value: number;
        if (mantissa < exactBelow && power >= -22 && power <= 22)
          value = power < 0 ? mantissa / powersOfTen[-power] : mantissa * powersOfTen[power];
        else {
          const cell = text.slice(begin + Number(isNegative), end);
          value = Number(decimal === ',' ? cell.replace(',', '.') : cell);
          if (!Number.isFinite(value)) break reading;
        }
        row[c] = isNegative ? -value : value;
        isFilled = true;
      }
      while (code === space || (code === tab && separatorCode !== tab)) code = text.charCodeAt(++i);
      if (c < width - 1) {
        if (code !== separatorCode) break reading;
        i++;
      } else if (code === lineFeed) i++;
      else if (code === carriageReturn) i += text.charCodeAt(i + 1) === lineFeed ? 2 : 1;
      else if (i < text.length) break reading;
    }
    if (!isFilled) break;
    if (start + rows >= room) {
      room = start + rows + roomRows;
      views = columns.map((column) => column.room(room));
    }
    for (let c = 0; c < width; c++) views[c][start + rows] = row[c];
    rows++;
    at = i;
  }
  for (const column of columns) column.extend(start + rows);
  return { at, rows };
}
