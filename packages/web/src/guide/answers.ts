import {
  type GuideAnswer,
  type GuideAnswerOf,
  type GuideItem,
  guideAnswerSchema,
} from '@heuristor/contracts';
import { useCallback, useSyncExternalStore } from 'react';
import { useNotebook } from '../notebook/context';

/** What was answered to a question, of the kind that it asks for; null where nothing was. */
export function useAnswer<K extends GuideAnswer['kind']>(question: string, kind: K): GuideAnswerOf<K> | null {
  const { answers } = useNotebook().document;
  const stored = useSyncExternalStore(
    useCallback(
      (changed: () => void) => {
        answers.observe(changed);
        return () => answers.unobserve(changed);
      },
      [answers],
    ),
    () => answers.get(question),
  );
  const parsed = guideAnswerSchema.safeParse(stored);
  return parsed.success && parsed.data.kind === kind ? (parsed.data as GuideAnswerOf<K>) : null;
}

/** How many of the questions among items are answered. */
export function useAnsweredCount(items: readonly GuideItem[]): number {
  const { document } = useNotebook();
  return useSyncExternalStore(
    useCallback(
      (changed: () => void) => {
        document.doc.on('update', changed);
        return () => document.doc.off('update', changed);
      },
      [document],
    ),
    () =>
      items.filter(({ id, kind }) =>
        kind === 'words' ? document.answerText(id).length > 0 : kind !== 'step' && document.answers.has(id),
      ).length,
  );
}
