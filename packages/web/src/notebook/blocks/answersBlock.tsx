import { useMemo, useState, useSyncExternalStore } from 'react';
import { QuestionCircle } from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { SketchPad } from '../../guide/sketch/SketchPad';
import { useGuideItems } from '../../guide/useGuideItems';
import { useNotebook } from '../context';
import { quotedNow } from '../quotation';
import { useRunsNeeded } from '../useRunsNeeded';
import { useSharedText } from '../useShared';
import { answerTo, runsAnswered, writtenAnswers } from '../written/answers';
import { TableFrame } from './TableFrame';
import { type BlockProps, type BlockView } from './block';

/** Grows with everything that is written, so that answers are read anew. */
function useWritten(): number {
  const { doc } = useNotebook().document;
  const [count] = useState(() => ({ of: 0 }));
  return useSyncExternalStore(
    (changed) => {
      const onUpdate = () => {
        count.of++;
        changed();
      };
      doc.on('update', onUpdate);
      return () => doc.off('update', onUpdate);
    },
    () => count.of,
  );
}

function AnswersView({ id }: BlockProps) {
  const notebook = useNotebook();
  const items = useGuideItems();
  const written = useWritten();
  const { workings, plan, runs } = useStore(notebook.host.documents);
  const { outcomes } = useStore(notebook.values.state);
  const { document: pages } = notebook;
  const needed = new Set(runsAnswered(pages));
  useRunsNeeded(runs.filter((run) => needed.has(run.id)));
  const table = useMemo(() => {
    if (items === null) return { head: [], rows: [], isWaiting: true };
    const now = (quotation: Parameters<typeof quotedNow>[0]) =>
      quotedNow(quotation, { workings, plan, runs, outcomeOf: (run) => outcomes.get(run), names: {} });
    return { ...writtenAnswers(items, pages, now), isWaiting: false };
    // Answers are read anew with everything that is written.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [items, pages, workings, plan, runs, outcomes, written]);
  const sketches = (items ?? []).flatMap((item, i) => {
    const answer = answerTo(pages, item.id);
    return item.kind === 'sketch' && answer?.kind === 'sketch'
      ? [{ item, points: answer.points, number: i + 1 }]
      : [];
  });
  return (
    <>
      <TableFrame
        id={id}
        follows="the guide"
        followed={table.rows.length === 0 && !table.isWaiting ? 'The guide asks nothing yet.' : table}
      />
      {sketches.map(({ item, points, number }) => (
        <figure key={item.id} className="answered-sketch">
          <SketchPad item={item} points={points} mayDraw={false} onDraw={() => undefined} />
          <figcaption>
            {number}. {item.title}
          </figcaption>
        </figure>
      ))}
    </>
  );
}

function useName(id: string): string {
  const [title] = useSharedText(useNotebook().document.lineOf(id, 'title'));
  return title === '' ? 'Answers' : title;
}

export const answersBlock: BlockView = {
  kind: 'answers',
  title: 'Answers to the guide',
  Icon: QuestionCircle,
  View: AnswersView,
  useName,
};
