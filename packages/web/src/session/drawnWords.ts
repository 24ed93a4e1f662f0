import { type Drawn, printedUnit } from '@heuristor/core';
import { roundedText } from '../ui/roundedText';
import { type ShownQuantity } from '../workers/protocol';

/** By how much of the uncertainty the draws may differ from first order before it is worth a word. */
const worthSaying = 0.05;

/** What many draws say of a result, beside what first order says of it. */
export function drawnWords(
  { value, standardUncertainty, unit }: Pick<ShownQuantity, 'value' | 'standardUncertainty' | 'unit'>,
  { count, mean, standardDeviation, low, high, lost }: Drawn,
): string {
  const u = standardUncertainty ?? 0;
  const symbol = printedUnit(unit);
  const told = (number: number) => roundedText(number, standardDeviation);
  const withUnit = (text: string) => (symbol === '' ? text : `${text} ${symbol}`);
  const found = `${count.toLocaleString('en')} draws give ${withUnit(`${told(mean)} ± ${roundedText(standardDeviation, standardDeviation)}`)}, two thirds of them between ${told(low)} and ${withUnit(told(high))}.`;
  const off = Math.max(
    Math.abs(mean - value),
    Math.abs(standardDeviation - u),
    Math.abs(value - low - u),
    Math.abs(high - value - u),
  );
  const gone =
    lost === 0
      ? ''
      : ` ${((100 * lost) / (count + lost)).toPrecision(2)} % of the draws have no value: there the formula divides by nothing, or takes a root or logarithm of something negative.`;
  return off < worthSaying * u && lost === 0
    ? `${found} That is what ± says: first order is good enough here.`
    : `${found} That is not what ± says: within these uncertainties the formula is not straight. Give the interval of the draws.${gone}`;
}
