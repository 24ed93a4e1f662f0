import { Refusal } from '../refusal';

export interface DecodedText {
  text: string;
  /** Name of the encoding for people. */
  encoding: string;
}

/** Control characters that no table of numbers holds: all but tab, line feed, form feed and carriage return. */
// eslint-disable-next-line no-control-regex
const binary = /[\u0000-\u0008\u000b\u000e-\u001f]/;

/**
 * Recognises how the bytes of a text are written: by its byte order mark, else UTF-8 where it is valid UTF-8, else
 * Windows-1252, which holds Latin-1. Uses the Encoding Standard's own decoder, which browsers and Node share.
 * @throws Refusal for what is no text
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  const starts = (...mark: number[]) => mark.every((byte, i) => bytes[i] === byte);
  const decoded = (label: string, encoding: string): DecodedText => ({
    text: new TextDecoder(label).decode(bytes),
    encoding,
  });
  let found: DecodedText;
  if (starts(0xff, 0xfe)) found = decoded('utf-16le', 'UTF-16');
  else if (starts(0xfe, 0xff)) found = decoded('utf-16be', 'UTF-16');
  else
    try {
      found = { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
    } catch {
      found = decoded('windows-1252', 'Windows-1252 (Latin-1)');
    }
  const wrong = binary.exec(found.text.slice(0, 100_000));
  if (wrong !== null)
    throw new Refusal(
      `This is no text file: character ${wrong.index + 1} is a control character (code ${wrong[0].charCodeAt(0)}). Save it as CSV.`,
    );
  return found;
}
