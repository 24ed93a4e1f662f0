import { mostUpdateBytes } from '@heuristor/contracts';
import DOMPurify from 'dompurify';
import { tell } from '../../ui/noticeStore';

/** What comes with words when they become a part of a text: each of its lines is an element of its own. */
const roomForElements = 0.75;

/** What was copied elsewhere, with nothing in it that a page could run, load or be styled by, before anything of it is read. */
export const cleanPasted = (html: string): string =>
  DOMPurify.sanitize(html, {
    USE_PROFILES: { html: true },
    FORBID_TAGS: ['style', 'img', 'video', 'audio', 'source', 'picture', 'form', 'input', 'button', 'iframe'],
    FORBID_ATTR: ['style', 'class', 'id', 'src', 'srcset', 'background'],
  });

/** Says so where more words come at once than can be stored in one go. @returns whether they are left out */
export function refusesPasted(data: DataTransfer | null): boolean {
  const bytes = new TextEncoder().encode(data?.getData('text/plain') ?? '').length;
  if (bytes <= roomForElements * mostUpdateBytes) return false;
  tell({
    kind: 'fault',
    text: `That is too much at once: ${Math.ceil(bytes / 1e6)} MB of words. Paste it in parts of a million letters.`,
  });
  return true;
}
