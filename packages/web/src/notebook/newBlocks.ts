import { useHasGuide } from '../guide/useGuideItems';
import { type NewBlock } from './document/notebookDocument';

/** What is pinned comes from the page on which it is seen. */
const newBlocks: readonly { title: string; called: string; block: NewBlock }[] = [
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

const answers = {
  title: 'Answers to the guide',
  called: 'add the answers to the guide',
  block: { kind: 'answers', lines: { title: '' } },
} as const;

/** Blocks that can be added here; answers only where a guide asks something. */
export const useNewBlocks = (): typeof newBlocks => (useHasGuide() ? [...newBlocks, answers] : newBlocks);
