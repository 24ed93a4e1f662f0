import { Refusal } from '../refusal';
import { conversionOf, measureOfUnit } from './conversion';
import { type Unit, parseUnit, printedUnit } from './unit';

/** A number as people type it: decimal point or comma, any minus, powers of ten, thin or plain spaces inside. */
const numberPattern = /^[+\-−–]?\s*(?:\d[\d \u202f\u2009]*(?:[.,]\d*)?|[.,]\d+)(?:\s*[eE][+\-−]?\d+)?/;

/** The number at the beginning of a text, and what stands after it; null where there is none. */
export function leadingNumber(text: string): { value: number; rest: string } | null {
  const match = numberPattern.exec(text.trim());
  if (match === null) return null;
  const plain = match[0]
    .replace(/[−–]/g, '-')
    .replace(/[ \u202f\u2009]/g, '')
    .replace(',', '.');
  const value = Number(plain);
  return Number.isFinite(value) ? { value, rest: text.trim().slice(match[0].length).trim() } : null;
}

/**
 * A quantity as people type it: "71 in", "12 cm", "30 deg", "0,5". Without a unit it is in the one that is expected.
 * @returns its value in the expected unit
 * @throws Refusal that says what is wrong, and what would be right
 */
export function typedQuantity(text: string, expected: Unit): number {
  const number = leadingNumber(text);
  const printed = printedUnit(expected);
  if (number === null)
    throw new Refusal(
      `“${text.trim()}” is no number. Type one like ${printed === '' ? '1.25' : `1.25 ${printed}`}.`,
    );
  if (number.rest === '') return number.value;
  const unit = parseUnit(number.rest);
  if (measureOfUnit(unit) === undefined)
    throw new Refusal(`“${number.rest}” is no unit that is known here. It is expected in ${printed}.`);
  try {
    const { factor, offset } = conversionOf(unit, expected);
    return Number((factor * number.value + offset).toPrecision(15));
  } catch {
    throw new Refusal(
      expected.length === 0
        ? `This is a plain number, without “${number.rest}”.`
        : `“${number.rest}” measures something else. It is expected in ${printed} or the like.`,
    );
  }
}

/** Words for a time in which so many readings are taken. */
const periods: Readonly<Record<string, number>> = {
  second: 1,
  sec: 1,
  s: 1,
  minute: 60,
  min: 60,
  hour: 3600,
  h: 3600,
  day: 86_400,
};

/**
 * A sample rate as people say it: "50", "50 Hz", "2 kHz", "20 ms" (the time between two readings), "every 20 ms", "1 a minute",
 * "10 per second", "5/s".
 * @returns the rate in hertz
 * @throws Refusal that says what is wrong, and what would be right
 */
export function typedRate(text: string): number {
  const words = text
    .trim()
    .toLowerCase()
    .replace(/^every\s+(?=\D)/, 'every 1 ')
    .replace(/\breadings?\b/, '')
    .replace(/\s+/g, ' ');
  const isEvery = words.startsWith('every ');
  const number = leadingNumber(isEvery ? words.slice(6) : words);
  const refusal = new Refusal(`“${text.trim()}” is no rate. Type one like 50 Hz, 20 ms or 1 a minute.`);
  if (number === null || !(number.value > 0)) throw refusal;
  const each = /^(?:a|an|per|each|every|\/)\s*([a-z]+)$/.exec(number.rest);
  const period = each === null ? undefined : periods[each[1].replace(/(?<=..)s$/, '')];
  if (period !== undefined && !isEvery) return number.value / period;
  if (number.rest === '' && !isEvery) return number.value;
  // Case tells millihertz from megahertz and is lost above.
  const written = leadingNumber(text.trim().replace(/^every\s+/i, ''))?.rest ?? number.rest;
  const plain = periods[number.rest.replace(/(?<=..)s$/, '')];
  if (plain !== undefined) return 1 / (number.value * plain);
  const unit = parseUnit(written.replace(/^k?hz$/i, (word) => (word.length === 3 ? 'kHz' : 'Hz')));
  const seconds = measureOfUnit(unit);
  if (seconds === undefined) throw refusal;
  const power = seconds.dimension[2];
  if (seconds.dimension.some((exponent, i) => i !== 2 && exponent !== 0)) throw refusal;
  if (power === -1) return Number((number.value * seconds.scale).toPrecision(12));
  if (power === 1) return Number((1 / (number.value * seconds.scale)).toPrecision(12));
  throw refusal;
}
