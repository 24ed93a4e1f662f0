import { sentenceOf } from '../../api/client';
import { tell } from '../../ui/noticeStore';
import { type NotebookSession } from '../notebookSession';

/** Sends a photograph to be kept; why it cannot be is said. */
export const takePhotograph = (notebook: NotebookSession, file: Blob): Promise<void> =>
  notebook.addPhotograph(file).then(
    () => undefined,
    (error: unknown) => tell({ kind: 'fault', text: sentenceOf(error) }),
  );

/** The pictures among what was pasted or dropped. */
export const picturesIn = (data: DataTransfer | null): File[] =>
  [...(data?.files ?? [])].filter(({ type }) => type.startsWith('image/'));
