import { type InvestigationSession } from '../../session/investigationSession';
import { tell } from '../../stores/notices';
import { saveFile } from '../saveFile';
import { type PictureContent, contentOf } from './content';
import { drawPicture } from './draw';
import { pixelPaper, shapePaper } from './paper';

/** How a picture is wanted. */
export interface PictureWish {
  /** Key of the trace that is wanted alone; null for the page. */
  only: string | null;
  width: number;
  height: number;
  /** Pixels a unit of length, where it is made of pixels. */
  sharpness: number;
}

function pixelsOf(content: PictureContent, { width, height, sharpness }: PictureWish): Promise<Blob> {
  const paper = pixelPaper(width, height, sharpness);
  drawPicture(paper, content, width, height);
  return new Promise((resolve, reject) =>
    paper.finish().toBlob((blob) => {
      if (blob === null)
        reject(new Error('The browser draws no picture of this size. Choose a smaller one.'));
      else resolve(blob);
    }, 'image/png'),
  );
}

function shapesOf(content: PictureContent, { width, height }: PictureWish): Blob {
  const paper = shapePaper(width, height);
  drawPicture(paper, content, width, height);
  return new Blob([paper.finish()], { type: 'image/svg+xml' });
}

/** Makes a picture of what stands on the bench. */
export async function pictureOf(
  session: InvestigationSession,
  wish: PictureWish,
  format: 'png' | 'svg',
): Promise<Blob> {
  const content = contentOf(session, wish.only);
  if (content === null)
    throw new Error('Nothing is shown that a picture could be made of. Show a run first.');
  return format === 'png' ? pixelsOf(content, wish) : shapesOf(content, wish);
}

export async function savePicture(
  session: InvestigationSession,
  wish: PictureWish,
  format: 'png' | 'svg',
): Promise<void> {
  await told(async () =>
    saveFile(await pictureOf(session, wish, format), `${session.documents.getState().name}.${format}`),
  );
}

export async function copyPicture(session: InvestigationSession, wish: PictureWish): Promise<void> {
  await told(async () => {
    // Asked at once: a browser lets a page copy only while a press is fresh.
    const blob = pictureOf(session, wish, 'png');
    try {
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })]);
    } catch {
      throw new Error(
        'The browser does not let this page copy pictures. It does over HTTPS, or on the computer that Heuristor runs on; save the picture instead.',
      );
    }
    tell({ kind: 'news', text: 'The picture is copied.' });
  });
}

async function told(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    tell({ kind: 'fault', text: error instanceof Error ? error.message : String(error) });
  }
}
