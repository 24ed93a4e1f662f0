import { type WorkingsDocument } from '@heuristor/contracts';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { tell } from '../stores/notices';
import { frameOf } from '../workers/compose';
import { type RunPool } from '../workers/pool';
import { type Extent } from '../workers/protocol';
import { explicitTraces } from './edits';
import { shownTarget } from './pace';
import { type Picture, PictureMaker } from './picture';
import { RenderLoop } from './renderLoop';
import { frontRun, shownRuns } from './runs';
import { type Documents, type View, showsZero } from './state';

const liveMilliseconds = 40;

/** Keeps what the bench shows in step with its documents, with how they are looked at, and with the readings that come. */
export class Renderer {
  readonly picture: StoreApi<Picture> = createStore<Picture>(() => ({
    workings: null,
    frame: null,
    traces: [],
    outcomes: {},
  }));
  private readonly loop = new RenderLoop(() => this.render());
  private readonly maker = new PictureMaker();
  private extents: { of: unknown[]; extents: Extent[] } = { of: [], extents: [] };
  /** Grows whenever readings have come. */
  private readings = 0;
  private ended = false;

  constructor(
    private readonly pool: RunPool,
    private readonly documents: StoreApi<Documents>,
    private readonly view: StoreApi<View>,
  ) {}

  /** Something was changed: a hand waits. */
  now(): void {
    this.loop.now();
  }

  /** Readings have come to the workers. */
  readingsCame(): void {
    this.readings++;
    this.loop.soon(liveMilliseconds);
  }

  dispose(): void {
    this.ended = true;
    this.loop.dispose();
  }

  private async render(): Promise<void> {
    if (this.hasEnded()) return;
    const documents = this.documents.getState();
    const { workings, runs } = documents;
    const view = this.view.getState();
    const { sight, plotWidth, moving, frontRunId } = view;
    const runIds = shownRuns(runs).map(({ id }) => id);
    const target = shownTarget(documents, view);
    const explicit = explicitTraces(workings, runs);
    const isLacking = target !== null && !explicit.includes(target.reference);
    try {
      const extents = await this.extentsOf(runIds, workings);
      const picture = await this.maker.make(
        {
          workings,
          traces: isLacking ? [target.reference, ...explicit] : explicit,
          width: Math.round(plotWidth),
          moving,
          frontRunId: frontRun(runs, frontRunId)?.id ?? null,
        },
        frameOf(extents, workings.horizontal === 't', sight, showsZero(view, documents), target),
        (request) => this.pool.render(runIds, request),
      );
      if (!this.hasEnded()) this.picture.setState(picture);
    } catch (error) {
      if (!this.hasEnded())
        tell({ kind: 'fault', text: `The workings could not be evaluated: ${String(error)}` });
    }
  }

  private hasEnded(): boolean {
    return this.ended;
  }

  /** The ends of the axis in each run; they are asked for only where something may have moved them. */
  private async extentsOf(runIds: string[], workings: WorkingsDocument): Promise<Extent[]> {
    const { horizontal, entries } = workings;
    const of = [runIds.join(), horizontal, this.readings, horizontal.startsWith('entry:') ? entries : null];
    if (of.every((part, i) => part === this.extents.of[i])) return this.extents.extents;
    const extents = await this.pool.extents(runIds, workings);
    this.extents = { of, extents };
    return extents;
  }
}
