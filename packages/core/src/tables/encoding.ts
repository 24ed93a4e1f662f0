import { Refusal } from '../refusal';

/** How the bytes of a text are written: what its decoder calls it, and people. */
export interface Encoding {
  label: string;
  name: string;
}

/** Control characters that no table of numbers holds: all but tab, line feed, form feed and carriage return. */
// eslint-disable-next-line no-control-regex
const binary = /[\u0000-\u0008\u000b\u000e-\u001f]/;
/** They are looked for in so many characters. */
const lookedAt = 100_000;

/**
 * Recognises how the bytes of a text are written: by its byte order mark, else UTF-8 where it is valid UTF-8, else
 * Windows-1252, which holds Latin-1. Uses the Encoding Standard's own decoder, which browsers and Node share.
 * @param pieces gives the bytes from their beginning, each time it is asked
 * @throws Refusal for what is no text
 */
export function encodingOf(pieces: () => Iterable<Uint8Array>): Encoding {
  const found = labelOf(pieces);
  let head = '';
  for (const text of decodedPieces(pieces(), found.label)) {
    head += text;
    if (head.length >= lookedAt) break;
  }
  const wrong = binary.exec(head.slice(0, lookedAt));
  if (wrong !== null)
    throw new Refusal(
      `This is no text file: character ${wrong.index + 1} is a control character (code ${wrong[0].charCodeAt(0)}). Save it as CSV.`,
    );
  return found;
}

function labelOf(pieces: () => Iterable<Uint8Array>): Encoding {
  const strict = new TextDecoder('utf-8', { fatal: true });
  let isFirst = true;
  try {
    for (const bytes of pieces()) {
      if (isFirst && bytes[0] === 0xff && bytes[1] === 0xfe) return { label: 'utf-16le', name: 'UTF-16' };
      if (isFirst && bytes[0] === 0xfe && bytes[1] === 0xff) return { label: 'utf-16be', name: 'UTF-16' };
      isFirst = false;
      strict.decode(bytes, { stream: true });
    }
    strict.decode();
    return { label: 'utf-8', name: 'UTF-8' };
  } catch {
    return { label: 'windows-1252', name: 'Windows-1252 (Latin-1)' };
  }
}

/** Bytes as text, piece by piece; a character that is cut by the end of a piece comes with the next one. */
export function* decodedPieces(pieces: Iterable<Uint8Array>, label: string): Generator<string> {
  const decoder = new TextDecoder(label);
  for (const bytes of pieces) yield decoder.decode(bytes, { stream: true });
  yield decoder.decode();
}
