import { type KeptDocument, type KeptKind, readKept } from '@heuristor/contracts';
import isEqual from 'fast-deep-equal';
import { z } from 'zod';

/** A document as it was after each step, and which of these states it is in. */
export interface DocumentSteps<T> {
  states: T[];
  at: number;
}

const storedSchema = z.object({ states: z.array(z.unknown()).min(1).max(300), at: z.number().int().min(0) });

/** More than this and the browser's store is filled by steps alone. */
const mostCharacters = 2_000_000;

/** Keeps the steps of a document as long as the browser's tab, so that they can be taken back after a reload. */
export interface StepMemory<T> {
  /** The steps that lead to this very one; null where there are none, or another hand has changed it since. */
  load(present: T): DocumentSteps<T> | null;
  save(steps: DocumentSteps<T>): void;
}

export const tabSteps = <K extends KeptKind>(investigation: string, kind: K): StepMemory<KeptDocument<K>> => {
  const key = `steps of ${investigation} ${kind}`;
  return {
    load(present) {
      try {
        const { states, at } = storedSchema.parse(JSON.parse(sessionStorage.getItem(key) ?? ''));
        const read = states.map((state) => readKept(kind, state));
        return at < read.length && isEqual(read[at], present) ? { states: read, at } : null;
      } catch {
        // What cannot be read cannot be taken back.
        return null;
      }
    },
    save(steps) {
      let { states, at } = steps;
      let text = JSON.stringify({ states, at });
      // The oldest steps go first.
      while (text.length > mostCharacters && at > 0) {
        const gone = Math.max(Math.floor(at / 2), 1);
        states = states.slice(gone);
        at -= gone;
        text = JSON.stringify({ states, at });
      }
      try {
        if (text.length > mostCharacters) sessionStorage.removeItem(key);
        else sessionStorage.setItem(key, text);
      } catch {
        // A browser that keeps nothing forgets this too.
      }
    },
  };
};
