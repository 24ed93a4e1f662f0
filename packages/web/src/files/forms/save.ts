import { ApiError, sentenceOf } from '../../api/client';
import { tell } from '../../ui/noticeStore';
import { saveFile } from '../saveFile';
import { type ExportForm } from './form';

/** Does something that hands a file on; why it cannot is said. */
export async function withNotice(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    const isOwn = error instanceof Error && !(error instanceof ApiError);
    tell({ kind: 'fault', text: isOwn ? error.message : sentenceOf(error) });
  }
}

/** Hands a file in a form to the browser’s downloads, under a name. @param make makes it; why it cannot is said */
export const saveAs = (
  { extension }: Pick<ExportForm, 'extension'>,
  name: string,
  make: () => Promise<Blob>,
): Promise<void> => withNotice(async () => saveFile(await make(), `${name}.${extension}`));
