import { type Encoding, type TextSource, decodedPieces, encodingOf } from '@heuristor/core/tables';
import { closeSync, fstatSync, openSync, readSync } from 'node:fs';

const pieceBytes = 1 << 20;

/** The bytes of a file, piece by piece. */
function* bytesIn(file: string): Generator<{ bytes: Uint8Array; share: number }> {
  const descriptor = openSync(file, 'r');
  try {
    const { size } = fstatSync(descriptor);
    for (let at = 0; at < size;) {
      const buffer = Buffer.allocUnsafe(Math.min(pieceBytes, size - at));
      const length = readSync(descriptor, buffer, 0, buffer.length, at);
      if (length === 0) return;
      yield { bytes: buffer.subarray(0, length), share: at / size };
      at += length;
    }
  } finally {
    closeSync(descriptor);
  }
}

/**
 * The text of a file, read part by part each time that it is gone through, so that a large one never lies in memory.
 * @throws Refusal for what is no text
 */
export function textOfFile(file: string): TextSource & { encoding: string } {
  function* bytes() {
    for (const piece of bytesIn(file)) yield piece.bytes;
  }
  const { label, name }: Encoding = encodingOf(bytes);
  return {
    encoding: name,
    *pieces() {
      let share = 0;
      function* counted() {
        for (const piece of bytesIn(file)) {
          ({ share } = piece);
          yield piece.bytes;
        }
      }
      for (const text of decodedPieces(counted(), label)) yield { text, share };
    },
  };
}
