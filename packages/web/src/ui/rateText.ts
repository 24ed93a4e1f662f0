import { shortText } from './numberText';
const digits = (value: number) => shortText(value);

/** A rate as it stands in a field, and is read back: 80 Hz, 2 kHz, 6 an hour. */
export function rateText(rate: number): string {
  if (rate >= 1000) return `${digits(rate / 1000)} kHz`;
  if (rate >= 0.1) return `${digits(rate)} Hz`;
  return rate * 60 >= 0.1 ? `${digits(rate * 60)} a minute` : `${digits(rate * 3600)} an hour`;
}

/** A rate in a sentence: 50 readings a second, a reading a minute. */
export function rateWords(rate: number): string {
  const [count, period] =
    rate >= 0.1 ? [rate, 'second'] : rate * 60 >= 0.1 ? [rate * 60, 'minute'] : [rate * 3600, 'hour'];
  const article = period === 'hour' ? 'an' : 'a';
  return Math.abs(count - 1) < 1e-9
    ? `a reading ${article} ${period}`
    : `${digits(count)} readings ${article} ${period}`;
}
