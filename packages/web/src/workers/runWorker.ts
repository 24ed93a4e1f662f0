import { type Run } from '@heuristor/contracts';
import { type FreshReadings, type RunReadings } from '@heuristor/evaluation';
import { type RenderRequest, type RenderedRun } from './protocol';
import { type QuestionKey } from './questions';

/** What a worker that holds runs does. */
export interface RunWorker {
  put(run: Run, readings: RunReadings): void;
  /** Adds readings; answers for each from which index on readings are missing before them, or null where nothing is. */
  append(parts: FreshReadings[]): (number | null)[];
  drop(runId: string): void;
  render(runIds: string[], request: RenderRequest): RenderedRun[];
  /** Puts one question to runs, see `questions.ts`; the answer of one that is not here is null. @throws Refusal */
  ask(runIds: string[], key: QuestionKey, about: unknown): unknown[];
}
