import { type Extensions } from '@tiptap/core';
import { TableKit } from '@tiptap/extension-table';
import StarterKit from '@tiptap/starter-kit';
import { Formula } from './formula';
import { Quote } from './quote';
import { Subscript, Superscript } from './raised';

/** Where a link may lead: everything else a browser might do with an address is no link. */
const schemes = ['https:', 'http:', 'mailto:'];
export function isSafeLink(address: string): boolean {
  try {
    return schemes.includes(new URL(address).protocol);
  } catch {
    return false;
  }
}

/** What a text of a notebook can hold. */
export const textExtensions: Extensions = [
  StarterKit.configure({
    undoRedo: false,
    heading: { levels: [2, 3] },
    codeBlock: false,
    code: false,
    link: {
      openOnClick: false,
      autolink: true,
      defaultProtocol: 'https',
      isAllowedUri: (address) => isSafeLink(address),
      HTMLAttributes: { rel: 'noopener noreferrer nofollow', target: '_blank' },
    },
    trailingNode: false,
  }),
  TableKit.configure({ table: { resizable: false } }),
  Subscript,
  Superscript,
  Quote,
  Formula,
];
