import {
  type GuideDocument,
  type Run,
  type TrialsDocument,
  type WorkingsDocument,
} from '@heuristor/contracts';
import { type Entry } from '@heuristor/core';
import { type StoreApi } from 'zustand/vanilla';
import { type RunPool } from '../runs/pool';
import { type History } from './history';
import { type Looking } from '../traces/pages/looking';
import { type OnPage } from '../traces/pages/pages';
import { type Picture } from '../traces/picture';
import { type PlanActions } from '../recording/plan/planActions';
import { type SeenRun } from '../runs/seenRun';
import { type Documents, type View } from './state';
import { type Viewing } from './viewing';

/** The tables over runs of an investigation, as they are kept. */
export interface KeptTrials {
  readonly state: StoreApi<{ trials: TrialsDocument }>;
  change(change: (trials: TrialsDocument) => TrialsDocument): void;
}

/** The guide of an investigation, as it is kept. */
export interface KeptGuide {
  readonly mayWrite: boolean;
  readonly guide: GuideDocument;
  change(change: (guide: GuideDocument) => GuideDocument): void;
}

/** What of an open investigation those need who do one thing in it; each picks its part. */
export interface Host {
  readonly documents: StoreApi<Documents>;
  readonly view: StoreApi<View>;
  readonly viewing: Viewing;
  readonly history: History;
  readonly looking: Looking;
  readonly plan: PlanActions;
  readonly pool: RunPool;
  readonly picture: StoreApi<Picture>;
  readonly workings: WorkingsDocument;
  readonly runs: SeenRun[];
  /** The run whose results stand in front. */
  readonly front: SeenRun | undefined;
  /** The page that is looked at. */
  readonly onPage: OnPage;
  /** Its tables, which are fetched when somebody first needs them. */
  trials(): Promise<KeptTrials>;
  /** Its guide, which is fetched when somebody first needs it. */
  guide(): Promise<KeptGuide>;
  changeWorkings(change: (workings: WorkingsDocument) => WorkingsDocument): void;
  changeEntry(id: string, patch: Partial<Entry>): void;
  /** Lays a run as the server has it. */
  takeRun(run: Run): void;
}
