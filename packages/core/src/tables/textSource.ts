import { Refusal } from '../refusal';

/** A text that can be gone through again and again, in pieces of any length, so that it need not lie in memory. */
export interface TextSource {
  /** Pieces in their order, each with which share of the text lies before it. */
  pieces(): Iterable<{ text: string; share: number }>;
}

/** A text is handed over in pieces of about so many characters. */
export const pieceLength = 1 << 20;
/** A line that is longer than this, or what stands in quotation marks, belongs to no table of numbers. */
const longestLine = 4 * pieceLength;

export const textSource = (text: string): TextSource => ({
  *pieces() {
    for (let from = 0; from < text.length; from += pieceLength)
      yield { text: text.slice(from, from + pieceLength), share: from / text.length };
  },
});

/** Whether a text holds a sign. */
export function holds(source: TextSource, sign: string): boolean {
  for (const { text } of source.pieces()) if (text.includes(sign)) return true;
  return false;
}

/** Whether anything but space and separators stands in a text. */
export function holdsSomething(source: TextSource): boolean {
  for (const { text } of source.pieces()) if (/[^\s,;|\uFEFF]/.test(text)) return true;
  return false;
}

/** The beginning of a text. */
export function headOfText(source: TextSource, length: number): string {
  let head = '';
  for (const { text } of source.pieces()) {
    head += text;
    if (head.length >= length) break;
  }
  return head.slice(0, length);
}

/**
 * A text in pieces that end with a line, and not within quotation marks.
 * @throws Refusal for a line that is longer than any table has
 */
export function* wholeLines(source: TextSource): Generator<{ text: string; share: number }> {
  let kept = '';
  let isFirst = true;
  for (const { text, share } of source.pieces()) {
    const more = isFirst ? text.replace(/^\uFEFF/, '') : text;
    isFirst = false;
    const all = joined(kept, more);
    const end = lastLineEnd(all);
    kept = all.slice(end);
    if (end > 0) yield { text: end === all.length ? all : joined('', all.slice(0, end)), share };
    else if (kept.length > longestLine)
      throw new Refusal(
        kept.includes('"')
          ? `A quotation mark is not closed: “${kept.slice(kept.indexOf('"'), kept.indexOf('"') + 40)}…”. Close it or take it out.`
          : `The line that begins with “${kept.slice(0, 40)}” has more than ${longestLine / pieceLength} million characters: this is no table of numbers.`,
      );
  }
  if (kept !== '') yield { text: kept, share: 1 };
}

/**
 * Two texts as one that lies in one piece. What is cut out of a text or added to one is read through where it came from, letter by
 * letter, and takes twice as long; V8 joins several into a new one.
 */
function joined(first: string, second: string): string {
  const parts = first === '' ? [second.slice(0, 1), second.slice(1)] : [first, second];
  return parts.join('');
}

const [quotation, lineFeed, carriageReturn] = [34, 10, 13];

/** The place after the last end of a line that stands outside of quotation marks; 0 where there is none. */
function lastLineEnd(text: string): number {
  if (!text.includes('"')) {
    const end = text.lastIndexOf('\n');
    // The first half of an end of two signs is none.
    return (end >= 0 ? end : text.lastIndexOf('\r', text.length - 2)) + 1;
  }
  let isQuoted = false;
  let [end, old] = [0, 0];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === quotation) isQuoted = !isQuoted;
    else if (!isQuoted && code === lineFeed) end = i + 1;
    else if (!isQuoted && code === carriageReturn && i < text.length - 1) old = i + 1;
  }
  return end > 0 ? end : old;
}
