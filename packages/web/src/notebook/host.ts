import { type GuideDocument, type TrialTable } from '@heuristor/contracts';
import { type StoreApi } from 'zustand/vanilla';
import { type History } from '../investigation/history';
import { type Documents } from '../investigation/state';
import { type RunPool } from '../runs/pool';

/** What a notebook needs of the investigation that it belongs to. */
export interface NotebookHost {
  readonly id: string;
  readonly documents: StoreApi<Documents>;
  readonly history: History;
  readonly pool: RunPool;
  /** The tables of its trials, which are fetched when somebody first needs them. */
  tables(): Promise<readonly TrialTable[]>;
  /** The guide whose questions are answered here, which is fetched when somebody first needs it. */
  guide(): Promise<{ readonly guide: GuideDocument }>;
  /** Resolves when the workings are stored as they stand. */
  stored(): Promise<void>;
}
