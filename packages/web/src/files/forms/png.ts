import { drawPicture } from '../picture/draw';
import { shownContent } from '../picture/content';
import { pixelPaper } from '../picture/paper';
import { type ExportForm } from './form';

export const png = {
  of: 'picture',
  title: 'as pixels (PNG)',
  extension: 'png',
  async write(session, { only, width, height, sharpness }) {
    const paper = pixelPaper(width, height, sharpness);
    drawPicture(paper, shownContent(session, only), width, height);
    return new Promise<Blob>((resolve, reject) =>
      paper.finish().toBlob((blob) => {
        if (blob === null)
          reject(new Error('The browser draws no picture of this size. Choose a smaller one.'));
        else resolve(blob);
      }, 'image/png'),
    );
  },
} as const satisfies ExportForm;
