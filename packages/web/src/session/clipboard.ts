import { tell } from '../stores/notices';

/** Copies a text; says that it is copied, or why it could not be. */
export async function copyText(text: string, what: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    tell({ kind: 'news', text: `${what} is copied.` });
  } catch {
    tell({
      kind: 'fault',
      text: 'The browser does not let this page copy. It does over HTTPS, or on the computer that Heuristor runs on.',
    });
  }
}
