import { type StoreApi } from 'zustand/vanilla';
import { type History } from '../investigation/history';
import { type Documents } from '../investigation/state';
import { type RunPool } from '../runs/pool';

/** What trials need of the investigation whose runs they are of. */
export interface TrialsHost {
  readonly id: string;
  /** Whose documents these are. */
  readonly owner: string;
  readonly documents: StoreApi<Documents>;
  readonly history: History;
  readonly pool: RunPool;
  /** Resolves when the workings are stored as they stand. */
  stored(): Promise<void>;
}
