import DOMPurify from 'dompurify';

/** What was copied elsewhere, with nothing in it that a page could run, load or be styled by, before anything of it is read. */
export const cleanPasted = (html: string): string =>
  DOMPurify.sanitize(html, {
    USE_PROFILES: { html: true },
    FORBID_TAGS: ['style', 'img', 'video', 'audio', 'source', 'picture', 'form', 'input', 'button', 'iframe'],
    FORBID_ATTR: ['style', 'class', 'id', 'src', 'srcset', 'background'],
  });
