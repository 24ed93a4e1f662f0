import { Refusal } from '../refusal';
import { standardGravity } from './atoms';
import { canConvert, conversionFactor, conversionOf, isTemperature, measureOfUnit } from './conversion';
import { type Unit, parseUnit, printedUnit } from './unit';

/**
 * A number as people type it: decimal point or comma, any minus, powers of ten, and groups of three digits with plain or thin
 * spaces, or apostrophes, between them.
 */
const numberPattern =
  /^[+\-−–]?\s*(?:\d{1,3}(?:[ \u202f\u2009\u00a0'’]\d{3})+(?!\d)|\d+)?(?:[.,]\d*)?(?:\s*(?:[eE]|[×x·*]\s*10\s*\^?)[+\-−]?\d+)?/;

/**
 * The number at the beginning of a text, and what stands after it; null where there is none. Fractions are understood (“1/60”), also
 * mixed ones (“1 1/2”); what could be read in two ways (“10 5”, “1.5.2”) is no number.
 */
export function leadingNumber(text: string): { value: number; rest: string } | null {
  const whole = text.trim();
  const match = numberPattern.exec(whole);
  if (match === null || !/\d/.test(match[0])) return null;
  const value = Number(
    match[0]
      .replace(/[−–]/g, '-')
      .replace(/\s*[×x·*]\s*10\s*\^?/, 'e')
      .replace(/[ \u202f\u2009\u00a0'’]/g, '')
      .replace(',', '.'),
  );
  if (!Number.isFinite(value)) return null;
  const rest = whole.slice(match[0].length);
  const below = /^\s*\/\s*(\d+)(?![\d.,])/.exec(rest);
  if (below !== null) return quotient(value, Number(below[1]), rest.slice(below[0].length));
  const mixed = /^\s+(\d+)\s*\/\s*(\d+)(?![\d.,])/.exec(rest);
  if (mixed !== null && Number.isInteger(value) && Number(mixed[1]) < Number(mixed[2])) {
    const [, above, under] = mixed.map(Number);
    const isNegative = /^[-−–]/.test(whole);
    return quotient(value * under + (isNegative ? -above : above), under, rest.slice(mixed[0].length));
  }
  // What goes on with digits is another number, or no number at all.
  return /^\s*[\d.,]/.test(rest) ? null : { value, rest: rest.trim() };
}

function quotient(above: number, below: number, rest: string): { value: number; rest: string } | null {
  if (below === 0 || /^\s*[\d.,/]/.test(rest)) return null;
  return { value: above / below, rest: rest.trim() };
}

/** Words that people say for units, with the plural taken off. */
const spoken: Readonly<Record<string, string>> = {
  metre: 'm',
  meter: 'm',
  centimetre: 'cm',
  centimeter: 'cm',
  millimetre: 'mm',
  millimeter: 'mm',
  kilometre: 'km',
  kilometer: 'km',
  inch: 'in',
  inche: 'in',
  '"': 'in',
  foot: 'ft',
  feet: 'ft',
  "'": 'ft',
  yard: 'yd',
  mile: 'mi',
  mph: '[mi_i]/h',
  degree: 'deg',
  radian: 'rad',
  revolution: '{turn}',
  second: 's',
  minute: 'min',
  hour: 'h',
  gram: 'g',
  kilogram: 'kg',
  pound: 'lb',
  ounce: 'oz',
  newton: 'N',
  volt: 'V',
  ampere: 'A',
  amp: 'A',
  gauss: 'G',
  pascal: 'Pa',
  hertz: 'Hz',
  kelvin: 'K',
  lux: 'lx',
};

/** What a single letter says where a temperature is expected. */
const temperatures: Readonly<Record<string, string>> = { C: '°C', F: '°F' };

/** The unit behind what somebody has typed after a number. */
function typedUnit(text: string, expected?: Unit): Unit {
  if (expected !== undefined && Object.hasOwn(temperatures, text) && isTemperature(expected))
    return parseUnit(temperatures[text]);
  const word = text.toLowerCase();
  const known = [word, word.replace(/s$/, '')].find((candidate) => Object.hasOwn(spoken, candidate));
  return parseUnit(known === undefined ? text : spoken[known]);
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
  const unit = typedUnit(number.rest, expected);
  if (measureOfUnit(unit) === undefined)
    throw new Refusal(`“${number.rest}” is no unit that is known here. It is expected in ${printed}.`);
  try {
    const { factor, offset } = conversionOf(unit, expected);
    // What is typed in the unit that is expected stays what it is, to its last digit.
    if (factor === 1 && offset === 0) return number.value;
    return Number((factor * number.value + offset).toPrecision(15));
  } catch {
    throw new Refusal(
      expected.length === 0
        ? `This is a plain number, without “${number.rest}”.`
        : `“${number.rest}” measures something else. It is expected in ${printed} or the like.`,
    );
  }
}

/**
 * The true value of what a sensor feels, as people type it: as `typedQuantity`, and where a force is expected also a mass, which
 * pulls with its weight at the standard acceleration of free fall.
 * @returns the value in the expected unit, and the mass in kilograms where one was typed
 * @throws Refusal
 */
export function typedLoad(text: string, expected: Unit): { value: number; mass: number | null } {
  const kilogram = parseUnit('kg');
  const number = leadingNumber(text);
  const isForce = canConvert(expected, parseUnit('N'));
  if (number !== null && isForce && canConvert(typedUnit(number.rest), kilogram)) {
    const mass = typedQuantity(text, kilogram);
    return { value: mass * standardGravity * conversionFactor(parseUnit('N'), expected), mass };
  }
  return { value: typedQuantity(text, expected), mass: null };
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
 * A sample rate as people say it: "80", "80 Hz", "2 kHz", "25 ms" (the time between two readings), "every 25 ms", "6 an hour",
 * "10 per second", "5/s".
 * @returns the rate in hertz
 * @throws Refusal that says what is wrong, and what would be right
 */
export function typedRate(text: string): number {
  const words = text
    .trim()
    .toLowerCase()
    .replace(/^every\s+(?=\D)/, 'every 1 ')
    .replace(/^once\b/, '1')
    .replace(/^twice\b/, '2')
    .replace(/\breadings?\b/, '')
    .replace(/\s+/g, ' ');
  const isEvery = words.startsWith('every ');
  const number = leadingNumber(isEvery ? words.slice(6) : words);
  const refusal = new Refusal(`“${text.trim()}” is no rate. Type one like 80 Hz, 25 ms or 6 an hour.`);
  if (number === null || !(number.value > 0)) throw refusal;
  const each = /^(?:a|an|per|each|every|\/)\s*([a-z]+)$/.exec(number.rest);
  const period = each === null ? undefined : periods[each[1].replace(/(?<=..)s$/, '')];
  if (period !== undefined && !isEvery) return number.value / period;
  if (number.rest === '' && !isEvery) return number.value;
  // Case tells millihertz from megahertz and is lost above.
  const written = leadingNumber(text.trim().replace(/^every\s+/i, ''))?.rest ?? number.rest;
  const plain = periods[number.rest.replace(/(?<=..)s$/, '')];
  if (plain !== undefined) return 1 / (number.value * plain);
  const unit = typedUnit(written.replace(/^k?hz$/i, (word) => (word.length === 3 ? 'kHz' : 'Hz')));
  const seconds = measureOfUnit(unit);
  if (seconds === undefined) throw refusal;
  const power = seconds.dimension[2];
  if (seconds.dimension.some((exponent, i) => i !== 2 && exponent !== 0)) throw refusal;
  if (power === -1) return Number((number.value * seconds.scale).toPrecision(12));
  if (power === 1) return Number((1 / (number.value * seconds.scale)).toPrecision(12));
  throw refusal;
}
