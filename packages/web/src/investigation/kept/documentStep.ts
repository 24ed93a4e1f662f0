import { type KeptDocument, type KeptKind } from '@heuristor/contracts';
import { tell } from '../../ui/noticeStore';
import { type HistoryStep } from '../history';
import { type KeptKindHere } from './kind';

/** A step of a document, taken back and taken again beside whatever others have done to it since. */
export function documentStep<K extends KeptKind>(
  kind: KeptKindHere<K>,
  present: () => KeptDocument<K>,
  lay: (document: KeptDocument<K>) => void,
  { before, after }: { before: KeptDocument<K>; after: KeptDocument<K> },
): HistoryStep {
  const go = (from: KeptDocument<K>, to: KeptDocument<K>) => {
    const { document, isWhole } = kind.steppedBack(present(), from, to);
    lay(document);
    if (!isWhole)
      tell({ kind: 'news', text: 'Some of that was changed on another screen since; it is left as it is.' });
  };
  // Asked when it is taken back: the changes of one drag become one step.
  const step: HistoryStep & { document: { kind: K; before: KeptDocument<K>; after: KeptDocument<K> } } = {
    document: { kind: kind.kind, before, after },
    get name() {
      return kind.stepName(step.document.before, step.document.after);
    },
    undo: () => go(step.document.after, step.document.before),
    redo: () => go(step.document.before, step.document.after),
  };
  return step;
}
