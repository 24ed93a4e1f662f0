import { type GuideAnswer, type GuideItem, guideAnswerSchema } from '@heuristor/contracts';
import { sketchPicture } from '../../guide/sketch/sketchChart';
import { type NotebookDocument } from '../document/notebookDocument';
import { type Quotation, type Quoted } from '../quotation';
import { type Written } from './table';

type Pages = Pick<NotebookDocument, 'answers' | 'answerText'>;

/** What was answered to a question; null where nothing was. */
export function answerTo(pages: Pages, question: string): GuideAnswer | null {
  const parsed = guideAnswerSchema.safeParse(pages.answers.get(question));
  return parsed.success ? parsed.data : null;
}

const nothing = '–';

function wordsOf(item: GuideItem, pages: Pages, now: (quotation: Quotation) => Quoted): string {
  if (item.kind === 'words') return pages.answerText(item.id).toString() || nothing;
  const answer = answerTo(pages, item.id);
  if (answer === null || answer.kind !== item.kind) return nothing;
  switch (answer.kind) {
    case 'number':
      return answer.text;
    case 'sketch':
      return 'sketched, see below';
    case 'choice': {
      const options = item.kind === 'choice' ? item.options : [];
      const chosen = options.filter(({ key }) => answer.chosen.includes(key));
      return chosen.map(({ text }) => text).join('; ') || nothing;
    }
    case 'result': {
      const { run, entry, key, then } = answer;
      const said = now({ of: 'result', run, entry, key });
      return said.kind === 'value'
        ? said.text
        : said.kind === 'missing'
          ? `${then} (gone: ${said.why})`
          : then;
    }
  }
}

/** What was answered to the questions of a guide: a row for each. */
export function writtenAnswers(
  items: readonly GuideItem[],
  pages: Pages,
  now: (quotation: Quotation) => Quoted,
): Written {
  const asked = items.flatMap((item, i) => (item.kind === 'step' ? [] : [{ item, number: i + 1 }]));
  return {
    head: ['question', 'answer'],
    rows: asked.map(({ item, number }) => [`${number}. ${item.title}`, wordsOf(item, pages, now)]),
  };
}

/** The sketches among the answers, as pictures with what they answer. */
export async function sketchesOf(items: readonly GuideItem[], pages: Pages) {
  const all = items.map(async (item, i) => {
    const answer = answerTo(pages, item.id);
    if (item.kind !== 'sketch' || answer?.kind !== 'sketch') return [];
    const picture = await sketchPicture(item, answer.points);
    return [{ kind: 'photograph' as const, ...picture, caption: `${i + 1}. ${item.title}`, marks: [] }];
  });
  return (await Promise.all(all)).flat();
}

/** The runs whose results were given as answers. */
export const runsAnswered = (pages: Pages): string[] =>
  [...pages.answers.keys()].flatMap((question) => {
    const answer = answerTo(pages, question);
    return answer?.kind === 'result' ? [answer.run] : [];
  });
