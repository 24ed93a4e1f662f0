import { type Outcome, type SeriesRef } from '@heuristor/core';

/** What was sent last of one run, so that only what has changed is sent again. */
export class LastSent {
  /** By entry. */
  readonly outcomes = new Map<string, Outcome>();
  /** By the series that the line shows; of own graphs, by theirs. */
  readonly lines = new Map<SeriesRef, SentLine>();

  forget(): void {
    this.outcomes.clear();
    this.lines.clear();
  }
}

export interface SentLine {
  /** Everything that decides the line but how fine it is. */
  inputs: unknown[];
  /** Whether it was drawn in passing, with half of what can be seen. */
  isCoarse: boolean;
}

/** Whether a line that was sent still stands. */
export const stands = (before: SentLine | undefined, inputs: readonly unknown[], moving: boolean): boolean =>
  before !== undefined &&
  before.inputs.length === inputs.length &&
  before.inputs.every((part, i) => part === inputs[i]) &&
  (moving || !before.isCoarse);
