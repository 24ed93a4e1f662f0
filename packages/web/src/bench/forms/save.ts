import { ApiError, sentenceOf } from '../../api/client';
import { type InvestigationSession } from '../../session/investigationSession';
import { tell } from '../../stores/notices';
import { saveFile } from '../saveFile';
import { type ExportForm } from './form';

/** Does something that hands a file on; why it cannot is said. */
export async function told(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    const isOwn = error instanceof Error && !(error instanceof ApiError);
    tell({ kind: 'fault', text: isOwn ? error.message : sentenceOf(error) });
  }
}

/** Makes a file in a form and hands it to the browser’s downloads, under a name. */
export const saveAs = <F extends ExportForm>(
  session: InvestigationSession,
  form: F,
  name: string,
  ...wish: F extends { write: (first: InvestigationSession, ...rest: infer W) => Promise<Blob> } ? W : never
): Promise<void> =>
  told(async () => {
    const write = form.write as (of: InvestigationSession, ...rest: typeof wish) => Promise<Blob>;
    saveFile(await write(session, ...wish), `${name}.${form.extension}`);
  });
