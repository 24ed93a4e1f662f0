import { type SampleFrame } from '@heuristor/contracts';

/** A frame with the moment, in ms of the server's clock, at which it came. */
interface TakenFrame {
  frame: SampleFrame;
  at: number;
}

const keptMilliseconds = 10_000;
const mostValues = 4_000_000;

/** The last seconds of a stream, so that a run can begin in the past. */
export class ReadingRing {
  private frames: TakenFrame[] = [];
  private values = 0;
  private holders = 0;

  /** Keeps all that comes from now on, as far as the memory goes, until it is released as often. */
  hold(): void {
    this.holders++;
  }

  release(): void {
    this.holders--;
  }

  push(taken: TakenFrame): void {
    this.frames.push(taken);
    this.values += taken.frame.values.length;
    let drop = 0;
    while (
      drop < this.frames.length - 1 &&
      ((this.holders === 0 && taken.at - this.frames[drop].at > keptMilliseconds) || this.values > mostValues)
    )
      this.values -= this.frames[drop++].frame.values.length;
    if (drop > 0) this.frames.splice(0, drop);
  }

  /** What is kept, oldest first. */
  kept(): readonly TakenFrame[] {
    return this.frames;
  }

  clear(): void {
    this.frames = [];
    this.values = 0;
  }
}
