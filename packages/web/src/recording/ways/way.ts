import { type Way } from '@heuristor/contracts';

/** A way of recording, as far as no screen is concerned; what stands on the bench for it is in `recording/wayParts`. */
export interface WayOfRecording {
  way: Way;
  title: string;
  about: string;
  /** What Record, and Space, take while no run is under way: a run, a reading, or nothing, since a device does it. */
  takes: 'run' | 'reading' | 'nothing';
  /** Whether axes show their zero where nobody has chosen: never, or where it is near what was read. */
  showsZero: false | 'near';
}
