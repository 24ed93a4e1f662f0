import { Refusal } from '../refusal';

/**
 * How many significant digits a number has as it is typed: all but the zeros that only hold its place at the front. Zeros at its end
 * count, also where there is no decimal sign: who typed them has said them.
 * @param text a number, with or without a unit behind it
 * @throws Refusal where there is no number
 */
export function significantDigits(text: string): number {
  const match = /^[+\-−–]?\s*(\d[\d \u202f\u2009\u00a0'’]*)?(?:[.,](\d*))?/.exec(text.trim());
  const digits = match === null ? '' : `${match[1] ?? ''}${match[2] ?? ''}`.replace(/\D/g, '');
  if (digits === '') throw new Refusal(`“${text.trim()}” is no number.`);
  const said = digits.replace(/^0+/, '');
  return said === '' ? 1 : said.length;
}
