import { type Drawn, printedUnit } from '@heuristor/core';
import { roundedText, written } from '../../ui/numberText';
import { type ShownQuantity } from '../../workers/protocol';

/** By how much of the half width behind ± the ends of the draws may differ from first order before it is worth a word. */
const worthSaying = 0.05;

/** What many draws say of a result, beside what first order says of it. */
export function drawnWords(
  { value, halfWidth, unit }: Pick<ShownQuantity, 'value' | 'halfWidth' | 'unit'>,
  { count, mean, low, high, lost }: Drawn,
): string {
  const half = halfWidth ?? 0;
  const symbol = printedUnit(unit);
  const rounded = (number: number) => roundedText(number, (high - low) / 2);
  const withUnit = (text: string) => (symbol === '' ? text : `${text} ${symbol}`);
  const found = `${count.toLocaleString('en')} draws have the mean ${withUnit(rounded(mean))}; the middle 68 % of them lie between ${rounded(low)} and ${withUnit(rounded(high))}. ± says from ${rounded(value - half)} to ${withUnit(rounded(value + half))}.`;
  const off = Math.max(Math.abs(value - low - half), Math.abs(high - value - half));
  const gone =
    lost === 0
      ? ''
      : ` ${written(((100 * lost) / (count + lost)).toPrecision(2))} % of the draws have no value: there the formula divides by nothing, or takes a root or logarithm of something negative.`;
  return off < worthSaying * half && lost === 0
    ? `${found} Both agree: first order is good enough here.`
    : `${found} They do not agree: within these uncertainties the formula is not straight. Give the interval of the draws.${gone}`;
}
