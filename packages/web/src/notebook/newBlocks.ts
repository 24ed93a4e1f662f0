import { type NewBlock } from './document/notebookDocument';

/** Blocks that can be added here; what is pinned comes from the page on which it is seen. */
export const newBlocks: readonly { title: string; called: string; block: NewBlock }[] = [
  { title: 'Text', called: 'add a text', block: { kind: 'text' } },
  {
    title: 'Table of results',
    called: 'add a table of results',
    block: { kind: 'results', lines: { title: '' } },
  },
  {
    title: 'Table of trials',
    called: 'add a table of trials',
    block: { kind: 'trials', fields: { table: '' }, lines: { title: '' } },
  },
];
