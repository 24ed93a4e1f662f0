import { mostFilmBytes, mostFilmSeconds } from '@heuristor/contracts';
import { tell } from '../../ui/noticeStore';
import { type NotebookSession } from '../notebookSession';
import { middleOf } from './frame';

/** Sends a film to be kept, with the moment in its middle for print; why it cannot be is said. */
export async function takeFilm(notebook: NotebookSession, file: Blob): Promise<void> {
  try {
    if (file.size > mostFilmBytes)
      throw new Error(
        `This film has ${Math.ceil(file.size / 2 ** 20)} MB; ${mostFilmBytes >> 20} MB at most are kept. Cut it or make it smaller first.`,
      );
    const { frame, lasts } = await middleOf(file);
    if (Number.isFinite(lasts) && lasts > mostFilmSeconds)
      throw new Error(
        `This film lasts ${Math.round(lasts)} s; ${mostFilmSeconds} s at most are kept. Cut it first.`,
      );
    await notebook.addFilm(file, frame);
  } catch (error) {
    tell({ kind: 'fault', text: error instanceof Error ? error.message : String(error) });
  }
}
