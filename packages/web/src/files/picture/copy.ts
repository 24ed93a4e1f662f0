import { type SheetSession } from '../../investigation/sheetSession';
import { tell } from '../../ui/noticeStore';
import { type PictureWish } from '../forms';
import { png } from '../forms/png';
import { withNotice } from '../forms/save';

/** Lays a picture on the clipboard. */
export const copyPicture = (session: SheetSession, wish: PictureWish): Promise<void> =>
  withNotice(async () => {
    // Asked at once: a browser lets a page copy only while a press is fresh.
    const blob = png.write(session, wish);
    try {
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })]);
    } catch {
      throw new Error(
        'The browser does not let this page copy pictures. It does over HTTPS, or on the computer that Heuristor runs on; save the picture instead.',
      );
    }
    tell({ kind: 'news', text: 'The picture is copied.' });
  });
