import { type Panel, type Run, type WorkingsDocument, panelOf } from '@heuristor/contracts';
import { type SeriesRef } from '@heuristor/core';
import { conditionsOf } from '@heuristor/evaluation';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { tell } from '../ui/noticeStore';
import { frameOf } from './compose';
import { type DrawnTrace } from './drawn';
import { type RunPool } from '../runs/pool';
import { type Extent, type RenderRequest } from '../workers/protocol';
import { axisKey } from './axes/scaling';
import { setInUnitsOf } from './axes/axisUnits';
import { type InSight } from '../workings/inSight';
import { shownTarget } from '../recording/pace/pace';
import { ownPanels, pageIn, panelsOf, seriesOn, sharedPanels } from './pages/pages';
import { type Picture, PictureComposer, nothingComposed } from './picture';
import { RenderLoop } from '../ui/renderLoop';
import { frontRun, recordingRun, shownRuns } from '../runs/runs';
import { type Documents, type View, showsZero } from '../investigation/state';

/** Live readings are drawn at most every so many milliseconds, and so often that drawing takes no more than this share of the time. */
const [soonestLive, latestLive, liveShare] = [40, 120, 0.4];

/** A hand that has not moved for so many milliseconds lets what is out of sight follow too. */
const pause = 150;

/** Keeps what the bench shows in step with its documents, with how they are looked at, and with the readings that come. */
export class Renderer {
  readonly picture: StoreApi<Picture> = createStore<Picture>(() => ({
    ...nothingComposed,
    isOfAllReadings: false,
  }));
  private readonly loop = new RenderLoop(() => this.timed());
  private readonly maker = new PictureComposer();
  private extents: { of: unknown[]; extents: Extent[] } = { of: [], extents: [] };
  /** What a picture took lately, in milliseconds, its drawing included. */
  private cost = 0;
  /** Grows whenever readings have come. */
  private readings = 0;
  /** Which axis the picture shows. */
  private shown: { page: string; horizontal: SeriesRef } | null = null;
  private ended = false;
  /** True once a hand that moves something has paused. */
  private isPausing = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly pool: RunPool,
    private readonly documents: StoreApi<Documents>,
    private readonly view: StoreApi<View>,
    private readonly inSight: InSight,
  ) {}

  /** Something was changed: a hand waits. */
  now(): void {
    this.isPausing = false;
    clearTimeout(this.timer);
    if (this.view.getState().moving)
      this.timer = setTimeout(() => {
        this.isPausing = true;
        this.loop.now();
      }, pause);
    this.loop.now();
  }

  /** Readings have come to the workers. */
  readingsCame(): void {
    this.readings++;
    if (this.picture.getState().isOfAllReadings) this.picture.setState({ isOfAllReadings: false });
    this.loop.soon(Math.min(Math.max(this.cost / liveShare, soonestLive), latestLive));
  }

  dispose(): void {
    this.ended = true;
    clearTimeout(this.timer);
    this.loop.dispose();
  }

  private async timed(): Promise<void> {
    const began = performance.now();
    await this.render();
    this.cost += 0.2 * (performance.now() - began - this.cost);
  }

  private async render(): Promise<void> {
    if (this.hasEnded()) return;
    const documents = this.documents.getState();
    const { workings, runs } = documents;
    const view = this.view.getState();
    const { readings } = this;
    const { sight, scales, reach, plotWidth, moving, frontRunId } = view;
    const recording = recordingRun(runs);
    const runIds = shownRuns(runs).map(({ id }) => id);
    const target = shownTarget(documents, view);
    const page = pageIn(workings, view.page);
    const { horizontal } = page;
    const all = panelsOf(page, runs);
    const panels = sharedPanels(all, workings);
    const own = ownPanels(all, workings);
    const isLacking = target !== null && !seriesOn(panels).includes(target.reference);
    try {
      // Asked at once where it can be: the workers are at it while the page draws what the hand has moved.
      const asked = this.extentsOf(runIds, workings, horizontal);
      const extents = asked instanceof Promise ? await asked : asked;
      const picture = await this.maker.make(
        {
          workings,
          horizontal,
          width: Math.round(plotWidth),
          moving,
          visible: moving && !this.isPausing ? this.inSight.visible : null,
          graphs: Object.fromEntries(
            own.map(({ id, series: [reference] }) => [reference, scales[axisKey(id, 'bottom')] ?? null]),
          ),
          logarithmic: panels.flatMap(({ series, logarithmic = [] }) =>
            logarithmic.length > 0 ? series : [],
          ),
          heights: horizontal === 't' ? {} : heightsOf(panels, scales, this.picture.getState().traces),
          conditions: Object.fromEntries(
            shownRuns(runs).map((run) => [
              run.id,
              [...conditionsOf(run, documents.plan), ...(documents.given ?? [])],
            ]),
          ),
          frontRunId: frontRun(runs, frontRunId)?.id ?? null,
        },
        { panels: isLacking ? [panelOf(target.reference), ...panels] : panels, own },
        frameOf(extents, horizontal === 't', {
          sight,
          withZero: showsZero(view, documents),
          target,
          scales,
          reach,
          isGrowing: recording !== undefined,
          expected: recording === undefined ? null : expectedEnd(recording),
          before: this.picture.getState().frame,
          isLogarithmic: horizontal !== 't' && page.logarithmic === true,
        }),
        (request) => this.pool.render(runIds, request),
      );
      if (this.hasEnded()) return;
      const isSameAxis = this.shown?.page === page.id && this.shown.horizontal === horizontal;
      this.shown = { page: page.id, horizontal };
      const set = setInUnitsOf(picture, this.picture.getState(), this.view.getState(), isSameAxis);
      // What a hand has set means the same in the new unit; it is drawn so at once.
      if (set !== null) this.view.setState(set);
      this.picture.setState({ ...picture, isOfAllReadings: readings === this.readings });
    } catch (error) {
      if (!this.hasEnded())
        tell({ kind: 'fault', text: `The workings could not be evaluated: ${String(error)}` });
    }
  }

  private hasEnded(): boolean {
    return this.ended;
  }

  /** The ends of the axis in each run; they are asked for only where something may have moved them. */
  private extentsOf(
    runIds: string[],
    workings: WorkingsDocument,
    horizontal: SeriesRef,
  ): Extent[] | Promise<Extent[]> {
    const { entries, shifts, aside, runs } = workings;
    const of = [
      runIds.join(),
      horizontal,
      this.readings,
      shifts,
      ...(horizontal === 't' ? [] : [aside, runs]),
      horizontal.startsWith('entry:') ? entries : null,
    ];
    if (of.length === this.extents.of.length && of.every((part, i) => part === this.extents.of[i]))
      return this.extents.extents;
    return this.pool.askAll(runIds, 'extent', { workings, along: horizontal }).then((extents) => {
      this.extents = { of, extents };
      return extents;
    });
  }
}

/** Where a run will end, by its plan; null where that is not known beforehand. */
const expectedEnd = ({ plan }: Run): number | null => (plan?.end.kind === 'after' ? plan.end.seconds : null);

/** The part of the vertical axis of each series whose axis a hand has set. */
function heightsOf(
  panels: readonly Panel[],
  scales: View['scales'],
  traces: readonly DrawnTrace[],
): RenderRequest['heights'] {
  const heights: RenderRequest['heights'] = {};
  for (const { id, series } of panels) {
    const set = scales[axisKey(id, 'left')];
    // Several traces may show a series: it is drawn for one that shows all of it.
    const isAlone = panels.filter((other) => other.series.includes(series[0])).length === 1;
    const unit = traces.find(({ key }) => key === id)?.unit;
    if (set !== undefined && unit !== undefined && isAlone) heights[series[0]] = { ...set, unit };
  }
  return heights;
}
