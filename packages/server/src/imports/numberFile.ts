import { type NumberStore, type Numbers, partsOf } from '@heuristor/core/tables';
import { closeSync, openSync, readSync, writeSync } from 'node:fs';

/** Parts of a file in which the numbers of one column lie, as float64. */
interface FilePlaces {
  count: number;
  /** Numbers before each piece, and its place in the file, in numbers. */
  pieces: readonly { first: number; at: number }[];
}

/** Where numbers lie that were written one after the other. */
export interface FilePlace {
  count: number;
  /** In numbers from the beginning of the file. */
  at: number;
}

/**
 * Writes columns of numbers into one file, piece by piece as they come.
 * @throws Error of the system where there is no room
 */
export class NumberFileWriter {
  private readonly descriptor: number;
  private at = 0;

  constructor(file: string) {
    this.descriptor = openSync(file, 'w+');
  }

  /** Makes columns in this file. */
  readonly store: NumberStore = () => {
    const pieces: { first: number; at: number }[] = [];
    let count = 0;
    return {
      append: (values) => {
        pieces.push({ first: count, at: this.at });
        const bytes = Buffer.from(values.buffer, values.byteOffset, values.byteLength);
        for (let done = 0; done < bytes.length;)
          done += writeSync(this.descriptor, bytes, done, bytes.length - done, this.at * 8 + done);
        this.at += values.length;
        count += values.length;
      },
      numbers: () => new FileNumbers(this.descriptor, { count, pieces: [...pieces] }),
    };
  };

  /** Writes numbers one after the other. */
  write(numbers: Numbers): FilePlace {
    const place = { at: this.at, count: numbers.length };
    const { append } = this.store();
    for (const { values } of partsOf(numbers)) append(values);
    return place;
  }

  close(): void {
    closeSync(this.descriptor);
  }
}

/** Numbers that were written one after the other into a file that stands open. */
export const numbersAt = (descriptor: number, { at, count }: FilePlace): Numbers =>
  new FileNumbers(descriptor, { count, pieces: [{ first: 0, at }] });

/** Numbers that lie in a file that stands open. */
class FileNumbers implements Numbers {
  constructor(
    private readonly descriptor: number,
    private readonly places: FilePlaces,
  ) {}

  get length(): number {
    return this.places.count;
  }

  subarray(from: number, to: number): Float64Array {
    const end = Math.min(to, this.length);
    const values = new Float64Array(Math.max(end - from, 0));
    const { pieces } = this.places;
    for (let next = from, place = this.pieceOf(from); next < end; place++) {
      const { first, at } = pieces[place];
      const past = place + 1 < pieces.length ? pieces[place + 1].first : this.length;
      const until = Math.min(past, end);
      this.read(values.subarray(next - from, until - from), at + next - first);
      next = until;
    }
    return values;
  }

  private read(into: Float64Array, at: number): void {
    const bytes = Buffer.from(into.buffer, into.byteOffset, into.byteLength);
    for (let done = 0; done < bytes.length;) {
      const length = readSync(this.descriptor, bytes, done, bytes.length - done, at * 8 + done);
      if (length === 0) throw new Error('the numbers of a file that was read are not there any more');
      done += length;
    }
  }

  /** The piece in which a number lies. */
  private pieceOf(index: number): number {
    const { pieces } = this.places;
    let [low, high] = [0, pieces.length - 1];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (pieces[middle].first <= index) low = middle;
      else high = middle - 1;
    }
    return low;
  }
}
