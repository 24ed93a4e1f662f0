import { drawPicture } from '../picture/draw';
import { shownContent } from '../picture/content';
import { shapePaper } from '../picture/paper';
import { type ExportForm } from './form';

export const svg = {
  of: 'picture',
  title: 'as shapes (SVG)',
  extension: 'svg',
  async write(session, { only, width, height }) {
    const paper = shapePaper(width, height);
    drawPicture(paper, shownContent(session, only), width, height);
    return new Blob([paper.finish()], { type: 'image/svg+xml' });
  },
} as const satisfies ExportForm;
