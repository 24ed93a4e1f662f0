import { type z } from 'zod';

/** What somebody who works on a job says and hears. */
export interface Doing {
  /** Aborted when nobody wants it any more, or when this process ends. */
  signal: AbortSignal;
  /** How much of it is done, from 0 to 1. */
  progress(share: number): void;
}

/**
 * A kind of what may wait. What it does may be begun several times, since the process that does it can end at any moment: the second
 * time must do no harm. Adding one: its file, and its line where the queue is made.
 */
export interface JobKind<T> {
  key: string;
  task: z.ZodType<T>;
  /** So often it is tried where it fails or its process ends. */
  attempts: number;
  work(task: T, doing: Doing): Promise<void>;
}

/** A kind as the queue knows it. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each kind has tasks of its own, checked by its own schema
export type AnyJobKind = JobKind<any>;
