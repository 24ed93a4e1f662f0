import {
  type Label,
  type WorkingsDocument,
  emptyPage,
  emptyWorkings,
  workingsSchema,
} from '@heuristor/contracts';
import { type RunPool } from '../../runs/pool';
import { readAt } from '../../workers/atCursor';
import { type CursorQuestion } from '../../workers/protocol';
import { runOf, stored, swing } from '../../testing/runs';
import { createStore } from 'zustand/vanilla';
import { withoutEntry } from '../../workings/edits';
import { LabelReader } from './labelReader';
import { filled, mostLabels, withLabel, withRenamed } from './labels';
import { usualView } from '../pages/looking';
import { type Picture, nothingComposed } from '../picture';
import { type Documents } from '../../investigation/state';

const free = { panel: 'channel:x', at: { kind: 'free' as const, x: 0.5, y: 0.5 }, text: 'so' };
const labelOf = (text: string, at: Label['at'] = free.at): Label => ({
  id: text,
  panel: 'channel:x',
  text,
  at,
  offset: { x: 0, y: 0 },
});
const sheetWith = (...labels: Label[]): WorkingsDocument => ({
  ...emptyWorkings,
  entries: [
    { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 1, end: 3 },
    { kind: 'statistics', id: 'm', name: 'height', region: 'A', of: 'channel:x' },
  ],
  pages: [{ ...emptyPage, labels }],
});

test('values are put where their names stand; what nothing is known of stays as it was written', () => {
  const known: Record<string, string> = { v: '1.2 m s⁻¹', 'period of the swing': '0.94 s' };
  const text = 'v = {v}, T = { period of the swing }, {what}, {}';
  expect(filled(text, (name) => known[name] ?? null)).toBe('v = 1.2 m s⁻¹, T = 0.94 s, {what}, {}');
});

test('labels follow a name that is changed, also within the name of a result, and nothing else', () => {
  const { pages } = withRenamed(sheetWith(labelOf('{v} {mean of v} {vv} v')), 'v', 'w');
  expect(pages[0].labels[0].text).toBe('{w} {mean of w} {vv} v');
});

test('a page takes as many labels as can be stored, and says when it is full', () => {
  let page = emptyPage;
  for (let i = 0; i < mostLabels; i++) page = withLabel(page, free)?.page ?? emptyPage;
  expect(page.labels).toHaveLength(mostLabels);
  expect(new Set(page.labels.map(({ id }) => id)).size).toBe(mostLabels);
  expect(withLabel(page, free)).toBeNull();
  expect(workingsSchema.safeParse({ ...emptyWorkings, pages: [page] }).success).toBe(true);
});

test('the label of a region goes with it', () => {
  const sheet = sheetWith(labelOf('held', { kind: 'region', region: 'A' }), labelOf('stays'));
  expect(withoutEntry(sheet, 'A').pages[0].labels.map(({ text }) => text)).toEqual(['stays']);
});

/** A desk over one run of 400 readings, with the picture that a bench would have. */
function deskOver(sheet: WorkingsDocument, shown = true) {
  const run = runOf('a', ['x'], { shown });
  const evaluator = stored(run, [swing(400)]);
  const pool: Pick<RunPool, 'ask'> = {
    ask: ((_run: string, _key: 'cursor', question: CursorQuestion) =>
      Promise.resolve(readAt(evaluator, question))) as RunPool['ask'],
  };
  const unit = [{ atom: 'm', power: 1 }];
  const picture = createStore<Picture>(() => ({
    ...nothingComposed,
    isOfAllReadings: true,
    workings: sheet,
    outcomes: {
      a: {
        m: {
          kind: 'results',
          results: [
            {
              key: 'mean',
              name: 'mean',
              main: true,
              value: 0.80123,
              halfWidth: 0.0021,
              standardUncertainty: 0.0021,
              degreesOfFreedom: null,
              roundTo: null,
              unit,
            },
          ],
          notes: [],
          correlations: null,
          count: null,
        },
      },
    },
  }));
  const documents = createStore(() => ({ runs: [run], workings: sheet }) as unknown as Documents);
  const desk = new LabelReader(
    pool,
    documents,
    createStore(() => usualView),
    picture,
  );
  picture.setState({
    frame: {
      horizontal: { symbol: 't', unit: [{ atom: 's', power: 1 }], quantity: 'time' },
      sight: { from: 0, to: 8 },
      step: 0.02,
    } as unknown as Picture['frame'],
    traces: [
      {
        key: 'channel:x',
        reference: 'channel:x',
        quantities: [{ reference: 'channel:x', symbol: 'x', side: 'left' }],
        symbol: 'x',
        unit,
        right: null,
      } as unknown as Picture['traces'][number],
    ],
  });
  return desk;
}
const later = () => new Promise((resolve) => setTimeout(resolve, 20));

test('a label on a reading tells what the series are there, its time, and results of its run', async () => {
  const at = { kind: 'point' as const, run: 'a', series: 'channel:x' as const, x: 2 };
  const desk = deskOver(sheetWith(labelOf('x = {x} at {t}; {mean of height}; {u}', at)));
  await later();
  const [shown] = desk.shown.getState();
  const truth = 0.8 + 0.04 * Math.sin(10);
  expect(shown.text).toContain(`x = ${truth.toFixed(3)}`);
  expect(shown.text).toMatch(/ m at 2\.000 s; 0\.8012 ± 0\.0021 m; \{u\}$/);
  expect(shown.unknown).toEqual(['u']);
  // While a hand moves something, this result is worked out with what is seen.
  expect(shown.quotes).toEqual(['m']);
  expect(shown.anchor?.x).toBe(2);
  expect(shown.anchor?.y).toBeCloseTo(truth, 9);
  desk.dispose();
});

test('a label of a region stands over its middle; one of a hidden run is hidden with it', async () => {
  const held = deskOver(sheetWith(labelOf('held', { kind: 'region', region: 'A' })));
  await later();
  expect(held.shown.getState()[0].anchor).toEqual({ x: 2, y: null });
  held.dispose();
  const at = { kind: 'point' as const, run: 'a', series: 'channel:x' as const, x: 2 };
  const hidden = deskOver(sheetWith(labelOf('top', at)), false);
  await later();
  expect(hidden.shown.getState()).toEqual([]);
  hidden.dispose();
});
