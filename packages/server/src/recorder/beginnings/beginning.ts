import { type Beginning } from '@heuristor/contracts';
import { type Source } from '../state';

/**
 * A way in which a run begins. Adding one: its schema in the contracts' plan, a file with such an object, and its line in the
 * registry. Moments are in ms of the server's clock.
 */
export interface BeginningKind<B extends Beginning = Beginning> {
  /** Asked once, when the run is armed: the moment at which it begins, or null where it waits for something. */
  onArm(beginning: B, sources: readonly Source[], now: number): number | null;
  /** Asked with every frame while it waits: the moment at which the run begins, which may lie in the past. */
  onReadings(
    beginning: B,
    source: Source,
    readings: { values: Float64Array; channels: number; from: number },
  ): number | null;
}
