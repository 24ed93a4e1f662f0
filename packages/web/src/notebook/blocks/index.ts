import { type BlockKind } from '../document/notebookDocument';
import { answersBlock } from './answersBlock';
import { type BlockView } from './block';
import { filmBlock } from './filmBlock';
import { photographBlock } from './photographBlock';
import { pinBlock } from './pinBlock';
import { resultsBlock } from './resultsBlock';
import { textBlock } from './textBlock';
import { trialsBlock } from './trialsBlock';

/** Every kind of block, as pages show it. */
export const blockViews: { readonly [K in BlockKind]: BlockView } = {
  text: textBlock,
  pin: pinBlock,
  results: resultsBlock,
  photograph: photographBlock,
  film: filmBlock,
  trials: trialsBlock,
  answers: answersBlock,
};
