import { type Beginning, type Level } from '@heuristor/contracts';
import { type CrossingWatch, type Threshold } from '../crossing';
import { type Heard } from '../heard';
import { type Source } from '../track';

/** What a run that is armed waits for. */
export type Waiting =
  | { kind: 'countdown'; until: number }
  | { kind: 'level'; level: Level; threshold: Threshold; since: number; watch: CrossingWatch }
  | { kind: 'switch'; quantity: string; to: 0 | 1; since: number };

/**
 * A way in which a run begins. Adding one: its schema in the contracts' plan, a file with such an object, and its line in the
 * registry. Moments are in ms of the server's clock; a moment as an answer is the beginning of the run, which may lie in the
 * past.
 */
export interface BeginningKind<B extends Beginning, W extends Waiting> {
  /** @throws Failure where it can never happen */
  arm(beginning: B, sources: readonly Source[], now: number): W | number;
  /** The quantity whose readings it wants to hear. */
  quantity?(waiting: W): string;
  hear?(waiting: W, heard: Heard): W | number;
  tick?(waiting: W, now: number): W | number;
}
