import { type ControlAction } from '@heuristor/contracts';

/** Something that goes through the beams of a gate. The first beam stands at 0; the second one a stretch further on. */
export interface Passer {
  step(seconds: number): void;
  /** How far it is from changing what a beam sees, below zero while it blocks it; `at` is where the beam stands, in metres. */
  margin(at: number): number;
  /** A hand takes hold at a place, or lets go; what is thrown or spun does so at once. */
  act(action: ControlAction): void;
  /** Where it is, for the drawing. */
  readonly place: number;
  readonly held: boolean;
}

/** Distance to the nearer edge of a stretch, below zero inside it. */
export const marginOf = (place: number, from: number, to: number): number =>
  Math.max(from - place, place - to);

/** A hand's own chance: how far it is off, in standard deviations. */
export type Unsteady = () => number;
