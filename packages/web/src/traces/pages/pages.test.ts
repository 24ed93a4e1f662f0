import { type Page, emptyPage, emptyWorkings, pageSchema, panelOf } from '@heuristor/contracts';
import { runOf } from '../../testing/runs';
import {
  pageName,
  panelsOf,
  seriesOn,
  withBorderMoved,
  withHorizontal,
  withPage,
  withPageAdded,
  withPanelMoved,
  withRunToggled,
  withSeriesToggled,
  withShown,
  withTraceToggled,
  withoutPage,
  withoutPanel,
} from './pages';

const runs = [runOf('a', ['x', 'F'])];
const shown = (page: Page) => seriesOn(panelsOf(page, runs));
const ids = (page: Page) => panelsOf(page, runs).map(({ id }) => id);

test('a page of which nothing was chosen has a trace for each channel but the one on its axis', () => {
  expect(shown(emptyPage)).toEqual(['channel:x', 'channel:F']);
  expect(shown(withHorizontal(emptyPage, 'channel:x'))).toEqual(['channel:F']);
});

test('traces are shown and hidden, and the last one stays', () => {
  const one = withTraceToggled(emptyPage, runs, 'channel:F');
  expect(shown(one)).toEqual(['channel:x']);
  expect(withTraceToggled(one, runs, 'channel:x')).toBe(one);
  expect(shown(withTraceToggled(one, runs, 'channel:F'))).toEqual(['channel:x', 'channel:F']);
});

test('a trace takes in other quantities and lets them go; what it shows alone it keeps', () => {
  const both = withSeriesToggled(emptyPage, runs, 'channel:x', 'channel:F');
  expect(panelsOf(both, runs)[0].series).toEqual(['channel:x', 'channel:F']);
  const other = withSeriesToggled(both, runs, 'channel:x', 'channel:x');
  expect(panelsOf(other, runs)[0].series).toEqual(['channel:F']);
  expect(withSeriesToggled(other, runs, 'channel:x', 'channel:F')).toBe(other);
  // A trace that shows something else by now does not stand for the series that it is called by.
  const again = withShown(other, runs, ['channel:x']);
  expect(shown(again)).toContain('channel:x');
  expect(pageSchema.safeParse(again).success).toBe(true);
});

test('runs are left out of one trace and not of the others', () => {
  const without = withRunToggled(emptyPage, runs, 'channel:F', 'a');
  expect(panelsOf(without, runs).map((panel) => panel.without)).toEqual([[], ['a']]);
  expect(panelsOf(withRunToggled(without, runs, 'channel:F', 'a'), runs)[1].without).toEqual([]);
});

test('traces are put elsewhere, beyond the ends no further', () => {
  const page = withShown(emptyPage, runs, ['entry:v']);
  expect(ids(withPanelMoved(page, runs, 'entry:v', 0))).toEqual(['entry:v', 'channel:x', 'channel:F']);
  expect(ids(withPanelMoved(page, runs, 'channel:x', 99))).toEqual(['channel:F', 'entry:v', 'channel:x']);
  expect(withPanelMoved(page, runs, 'channel:x', -1)).toBe(page);
  expect(withPanelMoved(page, runs, 'gone', 0)).toBe(page);
});

test('a border gives one trace what it takes from the other, and never all of it', () => {
  const moved = withBorderMoved(emptyPage, runs, 'channel:x', 0.25);
  expect(moved.panels.map(({ weight }) => weight)).toEqual([1.5, 0.5]);
  for (const share of [-5, 5]) {
    const far = withBorderMoved(emptyPage, runs, 'channel:x', share);
    expect(pageSchema.safeParse(far).success).toBe(true);
    expect(far.panels[0].weight + far.panels[1].weight).toBeCloseTo(2, 12);
  }
  expect(withBorderMoved(emptyPage, runs, 'channel:F', 0.1)).toBe(emptyPage);
});

test('a trace goes, the last one stays', () => {
  const page = withoutPanel(emptyPage, runs, 'channel:x');
  expect(ids(page)).toEqual(['channel:F']);
  expect(withoutPanel(page, runs, 'channel:F')).toBe(page);
});

test('a page is added like another one, named by its number until it has a name, and the last one stays', () => {
  const { workings, id } = withPageAdded(
    withPage(emptyWorkings, null, (page) => ({ ...page, panels: [panelOf('channel:F')] })),
    null,
  );
  expect(workings.pages[1].panels).toEqual([panelOf('channel:F')]);
  expect(pageName(workings, id)).toBe('Page 2');
  const named = withPage(workings, id, (page) => ({ ...page, name: 'Force' }));
  expect(pageName(named, id)).toBe('Force');
  const left = withoutPage(named, 'page-1');
  expect(left.pages.map((page) => page.id)).toEqual([id]);
  expect(withoutPage(left, id)).toBe(left);
});
