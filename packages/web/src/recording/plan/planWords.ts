import { type Beginning, type Ending, type Level, type Plan } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { rateWords } from '../../ui/rateText';
import { type Quantity } from '../../sensors/sensors';
import { shortText } from '../../ui/numberText';

const number = (value: number) => shortText(value, 6);
const symbolOf = (key: string, quantities: readonly Quantity[]) =>
  quantities.find((quantity) => quantity.key === key)?.channel.symbol ?? key;

/** "x rises through 0.05 m" */
export function levelWords(
  { quantity, of, direction, value, unit }: Level,
  quantities: readonly Quantity[],
): string {
  const symbol = symbolOf(quantity, quantities);
  const subject = of === 'speed' ? `the speed of ${symbol}` : symbol;
  return `${subject} ${direction === 'rise' ? 'rises' : 'falls'} through ${number(value)} ${printedUnit(parseUnit(unit))}`;
}

/** The rates of all streams, as one part of the sentence. */
export function rateWordsOf(quantities: readonly Quantity[]): string {
  const rates = new Set(
    quantities.filter(({ stream }) => stream.sampling === 'regular').map(({ stream }) => stream.rate),
  );
  if (rates.size === 0) return quantities.length === 0 ? 'no readings yet' : 'every edge';
  // More would make no sentence; each stands in what the part opens.
  return rates.size > 2 ? `readings at ${rates.size} rates` : [...rates].map(rateWords).join(' and ');
}

export function beginningWords(begin: Beginning, quantities: readonly Quantity[]): string {
  switch (begin.kind) {
    case 'at-once':
      return 'when pressed';
    case 'countdown':
      return `after a countdown of ${number(begin.seconds)} s`;
    case 'level':
      return `when ${levelWords(begin.level, quantities)}${keptWords(begin.keptSeconds)}`;
    case 'switch':
      return `when ${symbolOf(begin.quantity, quantities)} switches ${begin.to}${keptWords(begin.keptSeconds)}`;
  }
}

const keptWords = (seconds: number) => (seconds === 0 ? '' : `, keeping ${number(seconds)} s from before`);

export function endingWords(end: Ending, quantities: readonly Quantity[]): string {
  switch (end.kind) {
    case 'after':
      return `after ${number(end.seconds)} s`;
    case 'level':
      return `when ${levelWords(end.level, quantities)}, after ${number(end.atMostSeconds)} s at the latest`;
    case 'events':
      return `after ${end.count} ${end.count === 1 ? 'time' : 'times'} that ${symbolOf(end.quantity, quantities)} switched on, after ${number(end.atMostSeconds)} s at the latest`;
    case 'stopped':
      return 'when stopped';
  }
}

export const timesWords = ({ times }: Pick<Plan, 'times'>): string =>
  times === null
    ? 'Again and again until stopped'
    : times === 1
      ? 'Once'
      : times === 2
        ? 'Twice'
        : times === 3
          ? 'Three times'
          : `${times} times`;
