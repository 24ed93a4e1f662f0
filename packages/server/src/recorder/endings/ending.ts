import { type Ending, type Level } from '@heuristor/contracts';
import { type CrossingWatch, type Threshold } from '../crossing';
import { type Heard } from '../heard';
import { type Source } from '../track';

/** What, besides its time, a run ends at. */
export type EndWatch =
  | { kind: 'nothing' }
  | { kind: 'level'; level: Level; threshold: Threshold; watch: CrossingWatch }
  | { kind: 'events'; quantity: string; left: number };

/**
 * A way in which a run ends by itself. Adding one: its schema in the contracts' plan, a file with such an object, and its line
 * in the registry. A moment as an answer, in ms of the server's clock, is the end of the run.
 */
export interface EndingKind<E extends Ending, W extends EndWatch> {
  /** @throws Failure where it can never happen */
  arm(ending: E, sources: readonly Source[]): W | { kind: 'nothing' };
  quantity?(watch: W): string;
  /** Readings after the beginning of the run, at `origin`. */
  hear?(watch: W, heard: Heard, origin: number): W | number;
}
