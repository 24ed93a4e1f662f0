import { type Plan, type RecorderStatus, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type SeriesRef } from '@heuristor/core';
import { type Sight } from '../workers/protocol';

/** The documents of an investigation: what is stored. */
export interface Documents {
  name: string;
  plan: Plan;
  runs: Run[];
  workings: WorkingsDocument;
  /** What the recorder does for it. */
  recorder: RecorderStatus;
  /** Codes of devices that it uses or has used. */
  sensors: string[];
}

/** How the bench is looked at: nobody else's business, and not stored. */
export interface View {
  /** Stretch of the horizontal axis; null frames all data. */
  sight: Sight | null;
  plotWidth: number;
  /** Run whose results stand in front; null follows the newest that is shown. */
  frontRunId: string | null;
  /** Region whose handles and offers are shown. */
  selectedRegion: string | null;
  /** Series that offers beside the selected region speak of. */
  selectedSeries: SeriesRef | null;
  /** Entry that was just made and whose fields are to be filled in. */
  openEntry: string | null;
  /** Device whose set-up stands open over the traces. */
  setUp: string | null;
  /** True while a hand moves something. */
  moving: boolean;
}
