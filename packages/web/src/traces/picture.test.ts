import { type WorkingsDocument, emptyWorkings, panelOf } from '@heuristor/contracts';
import { runOf, stored, swing } from '../testing/runs';
import { type Frame } from './drawn';
import { type RenderRequest, type RenderedRun } from '../workers/protocol';
import { renderRun } from '../drawing/renderRun';
import { LastSent } from '../drawing/lastSent';
import { PictureComposer } from './picture';

const panels = [panelOf('channel:x')];
const frameAt = (from: number, to: number): Frame => ({
  horizontal: { symbol: 't', unit: [{ atom: 's', power: 1 }], quantity: 'time' },
  sight: { from, to },
  whole: { from: 0, to: 8 },
  notPositive: 0,
  withZero: false,
  target: null,
  scales: {},
  reach: 'shown',
  isGrowing: false,
  step: 0.02,
});
const mean = (end: number): WorkingsDocument => ({
  ...emptyWorkings,
  entries: [
    { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 1, end },
    { kind: 'statistics', id: 'm', name: '', region: 'A', of: 'channel:x' },
  ],
});

/** Workers that hold two runs, one of them in centimetres, and write down what they are asked. */
function workers() {
  const runs = [
    stored(runOf('a', ['x']), [swing(400)]),
    stored(runOf('b', ['x'], { unit: 'cm', firstId: 10 }), [swing(400).map((value) => 100 * value)]),
  ];
  const told = runs.map(() => new LastSent());
  const asked: RenderRequest[] = [];
  const answers: RenderedRun[][] = [];
  const ask = async (request: RenderRequest, shown = runs.map((_, i) => i)) => {
    asked.push(request);
    const rendered = shown.map((i) => renderRun(runs[i], request, told[i]));
    answers.push(rendered);
    return rendered;
  };
  return { ask, asked, answers };
}

const request = (workings: WorkingsDocument, moving = false) => ({
  workings,
  horizontal: 't' as const,
  heights: {},
  width: 600,
  moving,
  visible: null,
  conditions: {},
  frontRunId: 'a',
  graphs: {},
});

test('the first picture is asked for whole; lines that stand are left out afterwards, and stay the same objects', async () => {
  const { ask, asked, answers } = workers();
  const maker = new PictureComposer();
  const first = await maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  const second = await maker.make(request(mean(4)), { panels, own: [] }, frameAt(0, 8), ask);
  expect(asked.map(({ asksForAll }) => asksForAll)).toEqual([true, false]);
  expect(answers[1].map((run) => run.traces['channel:x'].line)).toEqual([null, null]);
  expect(second.traces[0].lines).toBe(first.traces[0].lines);
  expect(second.outcomes.a.m).not.toBe(first.outcomes.a.m);
  expect(second.workings?.entries[0]).toMatchObject({ end: 4 });
});

test('a run that nothing has changed keeps its outcomes as they were', async () => {
  const { ask } = workers();
  const maker = new PictureComposer();
  const first = await maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  const second = await maker.make(request({ ...mean(3) }), { panels, own: [] }, frameAt(1, 2), ask);
  expect(second.outcomes.a).toBe(first.outcomes.a);
  expect(second.traces[0].lines).not.toBe(first.traces[0].lines);
});

test('a dragged region draws no line anew; a zoom in passing is drawn coarse, and in full at rest', async () => {
  const { ask, answers } = workers();
  const maker = new PictureComposer();
  await maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  for (const end of [3.1, 3.2, 3.3])
    await maker.make(request(mean(end), true), { panels, own: [] }, frameAt(0, 8), ask);
  await maker.make(request(mean(3.3)), { panels, own: [] }, frameAt(0, 8), ask);
  const isSaid = (answer: RenderedRun[]) => answer[0].traces['channel:x'].line !== null;
  expect(answers.map(isSaid)).toEqual([true, false, false, false, false]);
  await maker.make(request(mean(3.3), true), { panels, own: [] }, frameAt(1, 3), ask);
  await maker.make(request(mean(3.3), true), { panels, own: [] }, frameAt(1, 3), ask);
  await maker.make(request(mean(3.3)), { panels, own: [] }, frameAt(1, 3), ask);
  expect(answers.slice(5).map(isSaid)).toEqual([true, false, true]);
});

test('an answer that got lost makes everything be sent again', async () => {
  const { ask } = workers();
  const maker = new PictureComposer();
  await maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  const lost = async (wanted: RenderRequest): Promise<RenderedRun[]> => {
    await ask(wanted);
    throw new Error('a worker is gone');
  };
  await expect(maker.make(request(mean(5)), { panels, own: [] }, frameAt(2, 4), lost)).rejects.toThrow(
    'gone',
  );
  const after = await maker.make(request(mean(5)), { panels, own: [] }, frameAt(2, 4), ask);
  // Both the line and the mean had been sent to nobody.
  expect(after.traces[0].lines[0].x[0]).toBeGreaterThan(1.9);
  const anew = await new PictureComposer().make(
    request(mean(5)),
    { panels, own: [] },
    frameAt(2, 4),
    workers().ask,
  );
  expect(after.outcomes.a.m).toEqual(anew.outcomes.a.m);
});

test('a line that is not known is asked for again at once, and never missing', async () => {
  const { ask, asked } = workers();
  const other = new PictureComposer();
  await other.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  // The workers believe that this one knows what they have sent the other.
  const maker = new PictureComposer();
  const notForAll = (wanted: RenderRequest) =>
    ask(asked.length === 1 ? { ...wanted, asksForAll: false } : wanted);
  const failing = maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), notForAll);
  await expect(failing).rejects.toThrow('could be loaded');
  const picture = await maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  expect(picture.traces[0].lines).toHaveLength(2);
});

test('a line in another unit that stands is brought into the shared one only once', async () => {
  const { ask } = workers();
  const maker = new PictureComposer();
  const first = await maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  const second = await maker.make(request(mean(4)), { panels, own: [] }, frameAt(0, 8), ask);
  expect(second.traces[0].lines[1].y).toBe(first.traces[0].lines[1].y);
  first.traces[0].lines[1].y.forEach((value, i) =>
    expect(value).toBeCloseTo(first.traces[0].lines[0].y[i], 12),
  );
});

test.each([
  ['with its lines', panels],
  ['with nothing to draw', [panelOf('channel:gone')]],
])('a run that was hidden for a while comes back whole, %s', async (_, shown) => {
  const { ask } = workers();
  const maker = new PictureComposer();
  const wanted = request(mean(3));
  const first = await maker.make(wanted, { panels: shown, own: [] }, frameAt(0, 8), ask);
  const hidden = await maker.make(wanted, { panels: shown, own: [] }, frameAt(0, 8), (asked) =>
    ask(asked, [0]),
  );
  expect(Object.keys(hidden.outcomes)).toEqual(['a']);
  const back = await maker.make(wanted, { panels: shown, own: [] }, frameAt(0, 8), ask);
  expect(back.outcomes).toEqual(first.outcomes);
  expect(back.traces).toEqual(first.traces);
});

test('an entry that was removed leaves the outcomes, one that was added comes', async () => {
  const { ask } = workers();
  const maker = new PictureComposer();
  await maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  const without = { ...mean(3), entries: mean(3).entries.slice(0, 1) };
  const removed = await maker.make(request(without), { panels, own: [] }, frameAt(0, 8), ask);
  expect(Object.keys(removed.outcomes.a)).toEqual(['A']);
  const back = await maker.make(request(mean(3)), { panels, own: [] }, frameAt(0, 8), ask);
  expect(Object.keys(back.outcomes.a)).toEqual(['A', 'm']);
});
