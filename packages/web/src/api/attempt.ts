import { sentenceOf } from './client';
import { inOrder } from './inOrder';
import { tell } from '../ui/noticeStore';

/** Does something on the server; a refusal becomes a notice. Answers false where it was refused. */
export async function attempt(work: () => Promise<unknown>): Promise<boolean> {
  try {
    await work();
    return true;
  } catch (error) {
    tell({ kind: 'fault', text: sentenceOf(error) });
    return false;
  }
}

/** The same for what later work stands on: a length, a rate or a zero is set on the server before a run is begun with it. */
export const attemptInOrder = (work: () => Promise<unknown>): Promise<boolean> =>
  attempt(() => inOrder(work));
