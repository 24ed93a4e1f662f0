import { type SampleFrame } from './frames';
import { keptAgainSeconds } from './link';

/** Readings that go into one message when they are sent again. */
const mostInFrame = 4096;
/** A device on the wire of a school has so much memory at most, in numbers. */
const mostNumbers = 4_000_000;

/**
 * What a device has read of one stream in the last seconds, so that it can send it again when its link broke. Frames are put in as
 * they are sent, or would have been; they follow each other without a hole.
 */
export class LinkMemory {
  private kept: { frame: SampleFrame; at: number }[] = [];
  private numbers = 0;

  /** @param now moment at which the readings were taken, in seconds of any clock that never turns back */
  keep(frame: SampleFrame, now: number): void {
    this.kept.push({ frame, at: now });
    this.numbers += sizeOf(frame);
    let drop = 0;
    while (
      drop < this.kept.length - 1 &&
      (now - this.kept[drop].at > keptAgainSeconds || this.numbers > mostNumbers)
    )
      this.numbers -= sizeOf(this.kept[drop++].frame);
    if (drop > 0) this.kept.splice(0, drop);
  }

  /** Index of the first reading that is kept; 0 where there is none yet. */
  get from(): number {
    return this.kept.at(0)?.frame.firstIndex ?? 0;
  }

  /** The readings from an index on, or from the first that is kept, as frames of a moderate length. */
  since(from: number): SampleFrame[] {
    return this.kept.flatMap(({ frame }) => piecesOf(frame, from));
  }
}

const sizeOf = ({ values, times }: SampleFrame) => values.length + (times?.length ?? 0);

function piecesOf(frame: SampleFrame, from: number): SampleFrame[] {
  const { channels, firstIndex, values, times } = frame;
  const count = values.length / channels;
  const pieces: SampleFrame[] = [];
  for (let i = Math.max(from - firstIndex, 0); i < count; i += mostInFrame) {
    const end = Math.min(i + mostInFrame, count);
    pieces.push({
      ...frame,
      firstIndex: firstIndex + i,
      values: values.slice(i * channels, end * channels),
      times: times?.slice(i, end) ?? null,
    });
  }
  return pieces;
}
