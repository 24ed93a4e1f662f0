import { type Page, type Panel, type Run, type WorkingsDocument, panelOf } from '@heuristor/contracts';
import { type SeriesRef, channelRef, drawsGraph, entryRef } from '@heuristor/core';
import { newId } from '../../investigation/ids';
import { type Side } from '../drawn';
import { presentRuns } from '../../runs/runs';

export const mostTraces = 12;
export const mostSeries = 8;
export const mostPages = 20;
const least = 0.1;
const most = 10;

/** The page that is looked at, and the runs whose channels it follows where nothing was chosen. */
export interface OnPage {
  page: string | null;
  runs: readonly Run[];
}

/** The page of this id; the first one where it is gone, or none was chosen. */
export const pageIn = ({ pages }: Pick<WorkingsDocument, 'pages'>, id: string | null): Page =>
  pages.find((page) => page.id === id) ?? pages[0];

/** The sheet with one of its pages changed. */
export function withPage(
  workings: WorkingsDocument,
  id: string | null,
  change: (page: Page) => Page,
): WorkingsDocument {
  const before = pageIn(workings, id);
  const after = change(before);
  if (after === before) return workings;
  return { ...workings, pages: workings.pages.map((page) => (page === before ? after : page)) };
}

/** The traces of a page as they are shown, also where it leaves them to follow the channels. */
export function panelsOf({ panels, horizontal }: Page, runs: readonly Run[]): Panel[] {
  if (panels.length > 0) return panels;
  const keys = new Set(presentRuns(runs).flatMap(({ channels }) => channels.map(({ key }) => key)));
  return [...keys]
    .map(channelRef)
    .filter((reference) => reference !== horizontal)
    .slice(0, mostTraces)
    .map(panelOf);
}

/** What an entry draws that has axes of its own, and so stands over no shared one. */
const ownGraphs = ({ entries }: Pick<WorkingsDocument, 'entries'>): ReadonlySet<SeriesRef> =>
  new Set(entries.filter(drawsGraph).map(({ id }) => entryRef(id)));

/** A page on which an axis of a trace is logarithmic, or is not any more. */
export function withLogarithm(
  page: Page,
  runs: readonly Run[],
  trace: string,
  side: Side,
  is: boolean,
): Page {
  return withPanel(page, runs, trace, ({ logarithmic = [], ...panel }) => {
    const sides = [...logarithmic.filter((one) => one !== side), ...(is ? [side] : [])];
    return sides.length === 0 ? panel : { ...panel, logarithmic: sides };
  });
}

/** A page with the legend of a trace put somewhere. */
export const withLegendAt = (
  page: Page,
  runs: readonly Run[],
  trace: string,
  legend: Panel['legend'],
): Page => withPanel(page, runs, trace, (panel) => ({ ...panel, legend }));

/** A page on which the readings of a trace are drawn so; undefined is what their number allows. */
export const withReadingsLook = (
  page: Page,
  runs: readonly Run[],
  trace: string,
  look: Panel['look'],
): Page => withPanel(page, runs, trace, (panel) => ({ ...panel, look }));

/** A page of which the horizontal axis is logarithmic, or is not any more. */
export function withLogarithmAcross(page: Page, is: boolean): Page {
  const { logarithmic = false, ...linear } = page;
  return is === logarithmic ? page : is ? { ...page, logarithmic: true } : linear;
}

/** The traces of a page over its shared axis. */
export function sharedPanels(panels: readonly Panel[], workings: Pick<WorkingsDocument, 'entries'>): Panel[] {
  const own = ownGraphs(workings);
  return panels
    .map((panel) =>
      panel.series.some((one) => own.has(one))
        ? { ...panel, series: panel.series.filter((one) => !own.has(one)) }
        : panel,
    )
    .filter(({ series }) => series.length > 0);
}

/** The traces of a page that have axes of their own. */
export function ownPanels(panels: readonly Panel[], workings: Pick<WorkingsDocument, 'entries'>): Panel[] {
  const own = ownGraphs(workings);
  return panels.filter(({ series }) => own.has(series[0]));
}

/** Every series that a page shows, each once. */
export const seriesOn = (panels: readonly Panel[]): SeriesRef[] => [
  ...new Set(panels.flatMap(({ series }) => series)),
];

/** A page on which these are shown, in traces of their own where they are in none. */
export function withShown(page: Page, runs: readonly Run[], references: readonly SeriesRef[]): Page {
  const before = panelsOf(page, runs);
  const panels = panelsWith(before, references);
  return panels === before ? page : { ...page, panels };
}

/** A page on which a series is shown in the trace of another one; in one of its own where that is not shown or full. */
export function withShownOver(page: Page, runs: readonly Run[], reference: SeriesRef, over: SeriesRef): Page {
  const panels = panelsOf(page, runs);
  const place = panels.findIndex(({ series }) => series.includes(over) && series.length < mostSeries);
  if (place < 0 || seriesOn(panels).includes(reference)) return withShown(page, runs, [reference]);
  return {
    ...page,
    panels: panels.map((panel, i) =>
      i === place ? { ...panel, series: [...panel.series, reference] } : panel,
    ),
  };
}

/** Traces with these series among them, in traces of their own where they are in none. */
export function panelsWith(panels: Panel[], references: readonly SeriesRef[]): Panel[] {
  const shown = seriesOn(panels);
  const missing = references.filter((reference) => !shown.includes(reference));
  if (missing.length === 0) return panels;
  return [...panels, ...missing.map((one) => newPanel(one, panels))].slice(0, mostTraces);
}

/** A trace of its own; known by its series where no other is. */
const newPanel = (reference: SeriesRef, panels: readonly Panel[]): Panel =>
  panels.some(({ id }) => id === reference) ? { ...panelOf(reference), id: newId() } : panelOf(reference);

/** A page without some series; a trace that has none left goes with them. */
export function withoutSeries(page: Page, gone: (reference: SeriesRef) => boolean): Page {
  if (!gone(page.horizontal) && !page.panels.some(({ series }) => series.some(gone))) return page;
  return {
    ...page,
    horizontal: gone(page.horizontal) ? 't' : page.horizontal,
    panels: page.panels
      .map((panel) => ({ ...panel, series: panel.series.filter((reference) => !gone(reference)) }))
      .filter(({ series }) => series.length > 0),
  };
}

/** A trace for a series is added to a page, or every trace of it loses the series; the last one stays. */
export function withTraceToggled(page: Page, runs: readonly Run[], reference: SeriesRef): Page {
  const panels = panelsOf(page, runs);
  if (!seriesOn(panels).includes(reference)) return withShown(page, runs, [reference]);
  const without = withoutSeries({ ...page, horizontal: 't', panels }, (shown) => shown === reference);
  return without.panels.length === 0 ? page : { ...page, panels: without.panels };
}

/** A page over another axis, which is no trace of its own there. */
export const withHorizontal = (page: Page, horizontal: SeriesRef): Page => ({
  ...withoutSeries(
    { ...withLogarithmAcross(page, false), horizontal: 't' },
    (reference) => reference === horizontal,
  ),
  horizontal,
});

/** One more quantity in a trace, or one less; the last one stays. */
export function withSeriesToggled(page: Page, runs: readonly Run[], id: string, reference: SeriesRef): Page {
  return withPanel(page, runs, id, (panel) => {
    const series = panel.series.includes(reference)
      ? panel.series.filter((shown) => shown !== reference)
      : [...panel.series, reference].slice(0, mostSeries);
    return series.length === 0 ? panel : { ...panel, series };
  });
}

/** A run is left out of a trace, or drawn there again. */
export const withRunToggled = (page: Page, runs: readonly Run[], id: string, run: string): Page =>
  withPanel(page, runs, id, (panel) => ({
    ...panel,
    without: panel.without.includes(run)
      ? panel.without.filter((other) => other !== run)
      : [...panel.without, run],
  }));

function withPanel(page: Page, runs: readonly Run[], id: string, change: (panel: Panel) => Panel): Page {
  const panels = panelsOf(page, runs);
  const before = panels.find((panel) => panel.id === id);
  if (before === undefined) return page;
  const after = change(before);
  if (after === before) return page;
  return { ...page, panels: panels.map((panel) => (panel === before ? after : panel)) };
}

/** A trace is taken off its page; the last one stays. */
export function withoutPanel(page: Page, runs: readonly Run[], id: string): Page {
  const panels = panelsOf(page, runs);
  const rest = panels.filter((panel) => panel.id !== id);
  return rest.length === 0 || rest.length === panels.length ? page : { ...page, panels: rest };
}

/** Several traces get another weight together: those that stand side by side. */
export function withWeights(page: Page, runs: readonly Run[], weights: ReadonlyMap<string, number>): Page {
  const panels = panelsOf(page, runs);
  return {
    ...page,
    panels: panels.map((panel) => {
      const weight = weights.get(panel.id);
      return weight === undefined ? panel : { ...panel, weight: Math.min(Math.max(weight, least), most) };
    }),
  };
}

/** A trace is put to where another one stands. */
export function withPanelMoved(page: Page, runs: readonly Run[], id: string, to: number): Page {
  const panels = [...panelsOf(page, runs)];
  const from = panels.findIndex((panel) => panel.id === id);
  const place = Math.min(Math.max(to, 0), panels.length - 1);
  if (from < 0 || from === place) return page;
  panels.splice(place, 0, ...panels.splice(from, 1));
  return { ...page, panels };
}

/**
 * The border under a trace is moved: it takes from the next one what it gets.
 * @param share by how much, as a share of what both have together
 */
export function withBorderMoved(page: Page, runs: readonly Run[], id: string, share: number): Page {
  const panels = panelsOf(page, runs);
  const place = panels.findIndex((panel) => panel.id === id);
  if (place < 0 || place === panels.length - 1) return page;
  const [upper, lower] = [panels[place], panels[place + 1]];
  const both = upper.weight + lower.weight;
  const weight = Math.min(Math.max(upper.weight + share * both, least, both - most), both - least, most);
  if (weight === upper.weight) return page;
  return {
    ...page,
    panels: panels.map((panel, i) =>
      i === place ? { ...upper, weight } : i === place + 1 ? { ...lower, weight: both - weight } : panel,
    ),
  };
}

/** One more page, which shows what the other one does. */
export function withPageAdded(
  workings: WorkingsDocument,
  like: string | null,
): { workings: WorkingsDocument; id: string } {
  const page = pageIn(workings, like);
  if (workings.pages.length >= mostPages) return { workings, id: page.id };
  const id = newId();
  return { workings: { ...workings, pages: [...workings.pages, { ...page, id, name: '' }] }, id };
}

/** A page goes; the last one stays. */
export const withoutPage = (workings: WorkingsDocument, id: string): WorkingsDocument =>
  workings.pages.length === 1
    ? workings
    : { ...workings, pages: workings.pages.filter((page) => page.id !== id) };

/** What a page is called: as it was named, or by its number. */
export const pageName = ({ pages }: Pick<WorkingsDocument, 'pages'>, id: string): string => {
  const place = pages.findIndex((page) => page.id === id);
  const name = pages[place]?.name ?? '';
  return name === '' ? `Page ${place + 1}` : name;
};
