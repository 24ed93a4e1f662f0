import * as Y from 'yjs';

/** Whether a cut before this place would part the two halves of one character. */
const splits = (text: string, at: number) =>
  at > 0 && at < text.length && /[\uD800-\uDBFF]/.test(text[at - 1]) && /[\uDC00-\uDFFF]/.test(text[at]);

/**
 * Makes a shared text read as it was typed, by changing only what is different: what others type elsewhere in it stays.
 * @param origin who changes it, as listeners of the document are told
 */
export function typeInto(shared: Y.Text, to: string, origin: unknown): void {
  const from = shared.toString();
  if (from === to) return;
  const most = Math.min(from.length, to.length);
  let start = 0;
  while (start < most && from[start] === to[start]) start++;
  if (splits(from, start) || splits(to, start)) start--;
  let end = 0;
  while (end < most - start && from[from.length - 1 - end] === to[to.length - 1 - end]) end++;
  if (splits(from, from.length - end) || splits(to, to.length - end)) end--;
  const change = () => {
    shared.delete(start, from.length - start - end);
    shared.insert(start, to.slice(start, to.length - end));
  };
  if (shared.doc === null) change();
  else Y.transact(shared.doc, change, origin);
}
