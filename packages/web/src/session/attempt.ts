import { sentenceOf } from '../api/client';
import { tell } from '../stores/notices';

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
