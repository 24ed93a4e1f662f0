import { type SampleFrame } from '@heuristor/contracts';

type State = 0 | 1 | null;

/**
 * How the channels of a stream of events stand, and which of the states that a device sends are edges: with several channels,
 * each event says how all of them stand, and most of them stand as before. An event at time 0 says how they stand when the
 * stream begins, and is no edge of any of them.
 */
export class EdgeWatch {
  readonly states: State[];

  constructor(channels: number) {
    this.states = new Array<State>(channels).fill(null);
  }

  /** The frame with what is no edge taken out (NaN). */
  edgesIn(frame: SampleFrame): SampleFrame {
    const { channels, values, times } = frame;
    const edges = values.map((value, i) => {
      const channel = i % channels;
      const isEdge = this.states[channel] !== value && times?.[Math.floor(i / channels)] !== 0;
      this.states[channel] = value === 1 ? 1 : 0;
      return isEdge ? value : NaN;
    });
    return { ...frame, values: edges };
  }

  forget(): void {
    this.states.fill(null);
  }
}
