import { resultText, shortText } from '../ui/numberText';
import { type HeldSpan, type SpanEnd } from './holds';

/** Where a condition holds, in a sentence. */
export function heldSentence(
  { condition, along, unit }: { condition: string; along: string; unit: string },
  spans: readonly HeldSpan[],
  reach: { low: number; high: number } | null,
): string {
  if (reach === null) return `${condition}: no row has a number there.`;
  const of = (text: string) => `${text}${unit === '' ? '' : ` ${unit}`}`;
  const between = `${shortText(reach.low, 4)} to ${of(shortText(reach.high, 4))}`;
  if (spans.length === 0) return `${condition} holds for no ${along} from ${between}.`;
  const [first] = spans;
  if (first.from === null && first.to === null)
    return `${condition} holds for every ${along} from ${between}.`;
  const said = (end: NonNullable<SpanEnd>) =>
    of(end.u === null ? shortText(end.at, 4) : resultText(end.at, end.u));
  const parts = spans.map(({ from, to }) =>
    from === null
      ? to === null
        ? `from ${between}`
        : `up to ${said(to)}`
      : to === null
        ? `from ${said(from)} on`
        : `from ${said(from)} to ${said(to)}`,
  );
  return `${condition} holds for ${along} ${parts.join(', and ')}.`;
}
