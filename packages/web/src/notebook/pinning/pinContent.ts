import { type PinContent, type PinnedResult, pinContentSchema } from '@heuristor/contracts';
import { type ResultRef, parseUnit, partsOfResultRef, printedUnit } from '@heuristor/core';
import { type PictureContent, shownContent } from '../../files/picture/content';
import { drawPicture } from '../../files/picture/draw';
import { shapePaper } from '../../files/picture/paper';
import { type SheetSession } from '../../investigation/sheetSession';
import { conditionsSaid } from '../../runs/conditions/conditionText';
import { shownRuns } from '../../runs/runs';
import { type SeenRun } from '../../runs/seenRun';
import { pageIn } from '../../traces/pages/pages';
import { resultWithUnit, shortText } from '../../ui/numberText';
import { abscissaOfRuns, mainResults, resultNames } from '../../workings/edits';
import { pictureSays } from './pictureSays';
import { tableOf } from './tableOf';

/** The width of a picture in a notebook, and the heights of what stands in it, in points. */
const width = 760;
const [head, each, most] = [64, 176, 780];
/** What stands alone has more room, and a plot of one thing against another most. */
const least = { bench: 300, trials: 420 };
const mostResults = 60;

/**
 * What is seen on a page, to be kept as it is.
 * @param called what the page is called where it has no name of its own
 * @throws Error where nothing is drawn yet
 */
export function pinContent(session: SheetSession, called: string): PinContent {
  const { enlarged } = session.view.getState();
  const content = shownContent(session, enlarged);
  const { runs, plan, workings } = session.documents.getState();
  const page = pageIn(workings, session.onPage.page);
  const shown = shownRuns(runs);
  const of = session.isOfTables ? 'trials' : 'bench';
  const height = Math.min(Math.max(head + each * rows(content), least[of]), most);
  const paper = shapePaper(width, height);
  // The block has a title of its own.
  drawPicture(paper, { ...content, title: '' }, width, height, 'sheet');
  const results = resultsBeside(session, shown);
  const { sight, scales, reach, withZero } = session.view.getState();
  const { placed, second } = session.cursor.state.getState();
  return pinContentSchema.parse({
    of,
    made: new Date().toISOString(),
    page: (page.name === '' ? called : page.name).slice(0, 80),
    picture: paper.finish(),
    width,
    height,
    says: pictureSays(content, results),
    // A table is no run.
    runs: session.isOfTables
      ? []
      : shown.map(({ id, number, name, group, conditions }) => ({
          id,
          number,
          name,
          group,
          conditions: conditionsSaid(conditions, plan.conditions).map((one) => one.slice(0, 400)),
        })),
    regions: content.regions.map(({ letter, name, start, end, unit }) => ({
      letter,
      name,
      text: `${shortText(start, 5)} to ${shortText(end, 5)} ${unit === undefined ? '' : printedUnit(parseUnit(unit))}`.trim(),
    })),
    results,
    look: {
      page: session.isOfTables ? (tableOf(session)?.id ?? '') : page.id,
      sight,
      scales,
      reach,
      withZero,
      enlarged,
      front: session.isOfTables ? null : (session.front?.id ?? null),
      cursors: [placed, second].filter((at) => at !== null),
    },
  } satisfies PinContent);
}

const rows = ({ traces, graphs }: PictureContent) => traces.length + (graphs.length > 0 ? 1.4 : 0);

/** The results that the shown runs have, those of the run in front first. */
function resultsBeside(session: SheetSession, shown: readonly SeenRun[]): PinnedResult[] {
  const { workings, runs } = session.documents.getState();
  const { outcomes } = session.picture.getState();
  const { front } = session;
  const ordered = [...shown].sort(
    (one, other) => Number(other.id === front?.id) - Number(one.id === front?.id),
  );
  const all = ordered.flatMap((run): PinnedResult[] => {
    const own = outcomes[run.id] ?? {};
    const names = resultNames(workings, own, abscissaOfRuns(runs));
    return mainResults(workings, own).flatMap((reference: ResultRef) => {
      const { id: entry, key } = partsOfResultRef(reference);
      const outcome = own[entry];
      const result = outcome.kind === 'results' ? outcome.results.find((one) => one.key === key) : undefined;
      if (result === undefined) return [];
      const { value, unit, halfWidth, roundTo } = result;
      const chosen = workings.entries.find(({ id }) => id === entry)?.shownIn?.[key];
      return [
        {
          run: session.isOfTables ? null : run.id,
          entry,
          key,
          name: names[reference].slice(0, 400),
          text: resultWithUnit({ value, unit, halfWidth, roundTo }, chosen),
        },
      ];
    });
  });
  return all.slice(0, mostResults);
}
