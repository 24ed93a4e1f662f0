import { type LinkedStream } from '../link/device';

/** What runs do with devices, asked by those who must not disturb them. */
export interface InRuns {
  /** Why a device must not be changed right now, or null. */
  whyBusy(code: string): string | null;
  /** The rate at which a run is recording a stream or waits to, or null. */
  rateOf(stream: LinkedStream): number | null;
}
