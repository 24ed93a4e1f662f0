import { decodedPieces, encodingOf } from '../tables/encoding';

/** A whole text from its bytes, and how they are written. @throws Refusal for what is no text */
export function decodeText(bytes: Uint8Array): { text: string; encoding: string } {
  const pieces = () => [bytes];
  const { label, name } = encodingOf(pieces);
  return { text: [...decodedPieces(pieces(), label)].join(''), encoding: name };
}
