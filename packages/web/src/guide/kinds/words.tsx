import { useMemo } from 'react';
import { PencilSquare } from 'react-bootstrap-icons';
import { useNotebook } from '../../notebook/context';
import { useSharedText } from '../../notebook/useShared';
import { LongText } from '../LongText';
import { type ItemKind, askedWith } from './kind';

export const words: ItemKind<'words'> = {
  kind: 'words',
  title: 'Question: words',
  Icon: PencilSquare,
  empty: (id) => ({ kind: 'words', ...askedWith(id), right: null }),
  Answer: function Words({ item }) {
    const notebook = useNotebook();
    const shared = useMemo(() => notebook.answerText(item.id), [notebook, item.id]);
    const [text, setText] = useSharedText(shared);
    return (
      <>
        {notebook.mayWrite ? (
          <SharedArea label={`Answer to ${item.title}`} text={text} onType={setText} />
        ) : (
          <p className="answer-words">{text}</p>
        )}
      </>
    );
  },
  Fields: ({ item, change }) => (
    <LongText
      label="A good answer, shown once answers are released"
      placeholder="A good answer, shown once answers are released"
      value={item.right ?? ''}
      maxLength={8000}
      onCommit={(text) => change({ right: text.trim() === '' ? null : text })}
    />
  ),
};

/** A text of several lines that several may type at once. */
function SharedArea({
  label,
  text,
  onType,
}: {
  label: string;
  text: string;
  onType: (text: string) => void;
}) {
  return (
    <div className="shared-area">
      {/* Its words give the field its height. */}
      <div aria-hidden className="shared-area-words">{`${text}\n`}</div>
      <textarea
        aria-label={label}
        placeholder="Your answer"
        value={text}
        maxLength={8000}
        onChange={({ target }) => onType(target.value)}
      />
    </div>
  );
}
