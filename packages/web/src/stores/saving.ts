import {
  type WorkingsDocument,
  investigationSchema,
  workingsSchema,
  workingsVersionSchema,
} from '@heuristor/contracts';
import { z } from 'zod';
import { create } from 'zustand';
import { ApiError, getJson, request, sentenceOf } from '../api/client';
import { tell } from './notices';
import { layOut, useWorkings } from './workings';

interface SavingState {
  state: 'saved' | 'saving' | 'not saved';
}

export const useSaving = create<SavingState>(() => ({ state: 'saved' }));

const pauseMilliseconds = 350;
const retryMilliseconds = 2000;
const newerSchema = z.object({ workings: workingsSchema, version: z.number() });

let investigation: string | null = null;
let version = 0;
let stored: WorkingsDocument | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;
let sending = false;

/** From now on, changes of the sheet are stored for this investigation. */
export function keepSaving(id: string, workings: WorkingsDocument, fromVersion: number): void {
  investigation = id;
  stored = workings;
  version = fromVersion;
  layOut(workings);
  useSaving.setState({ state: 'saved' });
}

/** Stores what is not stored yet, and stops. */
export async function stopSaving(): Promise<void> {
  clearTimeout(timer);
  await save();
  investigation = null;
}

async function save(): Promise<void> {
  const { workings } = useWorkings.getState();
  if (investigation === null || sending) return;
  if (workings === stored) {
    // A change that was undone before it was stored needs no storing.
    useSaving.setState({ state: 'saved' });
    return;
  }
  sending = true;
  useSaving.setState({ state: 'saving' });
  let retry = pauseMilliseconds;
  try {
    const answer = await request('PUT', `/investigations/${investigation}/workings`, { version, workings });
    version = workingsVersionSchema.parse(answer).version;
    stored = workings;
    useSaving.setState({ state: 'saved' });
  } catch (error) {
    if (error instanceof ApiError && error.code === 'stale-document') {
      const newer = newerSchema.parse(error.current);
      takeNewer(newer.workings, newer.version);
      tell({
        kind: 'fault',
        text: 'These workings were changed on another screen. The newer ones are shown; please repeat your last step.',
      });
    } else {
      useSaving.setState({ state: 'not saved' });
      tell({ kind: 'fault', text: `The workings are not saved yet. ${sentenceOf(error)}` });
      retry = retryMilliseconds;
    }
  } finally {
    sending = false;
  }
  if (useWorkings.getState().workings !== stored) timer = setTimeout(() => void save(), retry);
}

function takeNewer(workings: WorkingsDocument, newVersion: number): void {
  version = newVersion;
  stored = workings;
  layOut(workings);
  useSaving.setState({ state: 'saved' });
}

/** Another screen has stored a version; it is fetched unless it is our own. */
export async function noticeVersion(id: string, announced: number): Promise<void> {
  if (id !== investigation || sending || announced <= version) return;
  const newer = await getJson(`/investigations/${id}`, investigationSchema);
  if (newer.workingsVersion > version && useWorkings.getState().workings === stored)
    takeNewer(newer.workings, newer.workingsVersion);
}

useWorkings.subscribe(() => {
  if (investigation === null) return;
  useSaving.setState({ state: 'saving' });
  clearTimeout(timer);
  timer = setTimeout(() => void save(), pauseMilliseconds);
});

// Closing the page must not lose the last third of a second.
if (typeof window !== 'undefined')
  window.addEventListener('pagehide', () => {
    const { workings } = useWorkings.getState();
    if (investigation === null || workings === stored || sending) return;
    void fetch(`/api/investigations/${investigation}/workings`, {
      method: 'PUT',
      keepalive: true,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ version, workings }),
    });
  });
