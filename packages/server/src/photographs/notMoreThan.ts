import { Transform } from 'node:stream';

/** Lets so many bytes pass. @param tooMany what ends the stream where there are more */
export function notMoreThan(most: number, tooMany: () => Error): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (bytes > most) done(tooMany());
      else done(null, chunk);
    },
  });
}
