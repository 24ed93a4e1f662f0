import { type Plan, type RecorderStatus, type SpotStatus, type WorkingsDocument } from '@heuristor/contracts';
import { type Condition, type SeriesRef } from '@heuristor/core';
import { type SeenRun } from '../runs/seenRun';
import { wayOf } from '../recording/ways';
import { type ZeroShown } from '../traces/drawn';
import { type HandMode } from '../traces/hand/scene';
import { type Sight } from '../workers/protocol';

/** The documents of an investigation: what is stored. */
export interface Documents {
  name: string;
  plan: Plan;
  runs: SeenRun[];
  workings: WorkingsDocument;
  /** What the recorder does for it. */
  recorder: RecorderStatus;
  /** What is being read of a series of spot readings. */
  spots: SpotStatus;
  /** What is known beside what was typed of runs: of a table of trials, the constants of the workings. */
  given?: readonly Condition[];
  /** Parts of the horizontal axis that are marked and nobody can drag: of a table, where a condition holds. */
  spans?: readonly Sight[];
  /** Codes of devices that it uses or has used. */
  sensors: string[];
}

/** Whether axes show their zero as the bench is looked at now. */
export const showsZero = (
  { withZero }: Pick<View, 'withZero'>,
  { plan }: Pick<Documents, 'plan'>,
): ZeroShown => withZero ?? wayOf(plan).showsZero;

/** How the bench is looked at: nobody else's business, and not stored. */
export interface View {
  /** The page that is looked at; null is the first one. */
  page: string | null;
  /** Part of the horizontal axis; null frames all data. */
  sight: Sight | null;
  /** Vertical axes that a hand has set, by trace and side. */
  scales: Readonly<Record<string, Sight>>;
  /** Whether the other axes are made for what is in sight, or for all of the data. */
  reach: 'shown' | 'all';
  /** The trace that is shown alone for a while. */
  enlarged: string | null;
  plotWidth: number;
  /** Run whose results stand in front; null follows the newest that is shown. */
  frontRunId: string | null;
  /** Region whose handles are shown. */
  selectedRegion: string | null;
  /** Whether what can be worked out on it is offered. */
  isOffering: boolean;
  /** Series that offers beside the selected region speak of. */
  selectedSeries: SeriesRef | null;
  /** Entry that was just made and whose fields are to be filled in. */
  openEntry: string | null;
  /** Device whose set-up stands open over the traces. */
  setUp: string | null;
  /** Whether what the sensors read lies over the traces. */
  isLive: boolean;
  /** Whether large digits stand over the bench. */
  hasDigits: boolean;
  /** The next spot reading begins a new series. */
  isNewSeries: boolean;
  /** Whether axes show their zero; null leaves it to the way of recording: spot readings are looked at from zero. */
  withZero: boolean | null;
  /** What a hand that drags over the traces does: marks regions, draws around readings, or moves the run in front in time. */
  handMode: HandMode;
  /** True while a hand moves something. */
  moving: boolean;
}
