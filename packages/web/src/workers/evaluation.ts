import * as Comlink from 'comlink';
import { type EvaluationWorker } from './evaluation.worker';

/** The one worker that holds the runs and evaluates the workings. */
export const evaluation = Comlink.wrap<EvaluationWorker>(
  new Worker(new URL('./evaluation.worker.ts', import.meta.url), { type: 'module' }),
);
