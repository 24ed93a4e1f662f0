import copy from 'copy-to-clipboard';
import { tell } from './noticeStore';

/** Copies a text; says that it is copied, or why it could not be. */
export async function copyText(text: string, what: string): Promise<void> {
  // Over plain HTTP, browsers let a page copy only in an older way.
  const isCopied = await copy(text).catch(() => false);
  tell(
    isCopied
      ? { kind: 'news', text: `${what} is copied.` }
      : {
          kind: 'fault',
          text: 'The browser does not let this page copy. It does over HTTPS, or on the computer that Heuristor runs on.',
        },
  );
}
