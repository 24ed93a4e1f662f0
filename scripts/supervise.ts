import { setTimeout as wait } from 'node:timers/promises';
import { say } from './plain';

/** Something that runs until it ends, which it should not. */
export interface Running {
  ended: Promise<void>;
  stop(): Promise<void>;
}

export interface Supervised<R extends Running> {
  /** The one that runs now. */
  now(): R;
  /** Ends it for good. */
  stop(): Promise<void>;
}

const firstPause = 300;
const longestPause = 15_000;
/** What ran so long has started well; the next end is met with patience anew. */
const settledAfter = 60_000;

/**
 * Keeps something running: whenever it ends unasked it is started again, sooner at first and later when that does not help,
 * and people are told once each time.
 * @param called what it is, at the beginning of a sentence
 */
export function supervise<R extends Running>(
  called: string,
  first: R,
  start: () => Promise<R>,
): Supervised<R> {
  let running = first;
  const stopping = new AbortController();
  const keep = async () => {
    let pause = firstPause;
    for (;;) {
      const since = Date.now();
      await running.ended;
      if (stopping.signal.aborted) return;
      if (Date.now() - since > settledAfter) pause = firstPause;
      say(`${called} ended unexpectedly; starting it again.`);
      for (;;) {
        try {
          await wait(pause, undefined, { signal: stopping.signal });
          pause = Math.min(pause * 2, longestPause);
          running = await start();
          break;
        } catch (error) {
          if (stopping.signal.aborted) return;
          say(`${called} cannot be started yet: ${error instanceof Error ? error.message : String(error)}`);
        }
      }
      if (stopping.signal.aborted) {
        await running.stop();
        return;
      }
      say(`${called} runs again.`);
    }
  };
  const kept = keep();
  return {
    now: () => running,
    async stop() {
      stopping.abort();
      await running.stop();
      await kept;
    },
  };
}
