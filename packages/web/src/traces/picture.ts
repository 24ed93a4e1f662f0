import { type Panel, type WorkingsDocument } from '@heuristor/contracts';
import { type DrawnGraph, composeGraphs } from './ownGraphs/composeGraphs';
import { composeTraces } from './compose';
import { type DrawnTrace, type Frame } from './drawn';
import { KnownLines } from './knownLines';
import { type RenderRequest, type RenderedRun, type ShownOutcome } from '../workers/protocol';
import { seriesOn } from './pages/pages';

/** What the workers said last, with whether it is of all that they have. */
export interface Picture extends Composed {
  /** Whether it holds all readings that have come to the workers. */
  isOfAllReadings: boolean;
}

/** What the workers said last. */
export interface Composed {
  /** The sheet that this is about; what stands on the sheet by now may be further on. */
  workings: WorkingsDocument | null;
  frame: Frame | null;
  traces: DrawnTrace[];
  /** What has axes of its own. */
  graphs: DrawnGraph[];
  /** By run, then by entry; an outcome that did not change stays the same object. */
  outcomes: Record<string, Record<string, ShownOutcome>>;
}

/** Before the workers have said anything. */
export const nothingComposed: Composed = {
  workings: null,
  frame: null,
  traces: [],
  graphs: [],
  outcomes: {},
};

/**
 * Puts together what the workers say into what the bench shows. They leave out what has not changed; should an answer get lost,
 * everything is asked for again.
 */
export class PictureComposer {
  private readonly lines = new KnownLines();
  private picture: Composed = nothingComposed;
  private asksForAll = true;

  /**
   * Asks for a picture of the workings.
   * @param ask asks the workers; where it fails, everything is asked for again next time
   */
  async make(
    request: Omit<RenderRequest, 'asksForAll' | 'sight' | 'axisUnit' | 'traces'>,
    { panels, own }: { panels: readonly Panel[]; own: readonly Panel[] },
    frame: Frame,
    ask: (request: RenderRequest) => Promise<RenderedRun[]>,
  ): Promise<Composed> {
    for (;;) {
      const { asksForAll } = this;
      this.asksForAll = true;
      const rendered = await ask({
        ...request,
        traces: seriesOn(panels),
        sight: frame.sight,
        axisUnit: frame.horizontal.unit,
        asksForAll,
      });
      const picture = this.pictureOf(rendered, request, { panels, own }, frame);
      if (picture === null && !asksForAll) continue;
      if (picture === null) throw new Error('Not all readings of the picture could be loaded.');
      this.asksForAll = false;
      return (this.picture = picture);
    }
  }

  private pictureOf(
    rendered: readonly RenderedRun[],
    { workings, graphs }: Pick<RenderRequest, 'workings' | 'graphs'>,
    { panels, own }: { panels: readonly Panel[]; own: readonly Panel[] },
    frame: Frame,
  ): Composed | null {
    const complete = this.lines.complete(rendered);
    if (complete === null) return null;
    const { outcomes: before, traces } = this.picture;
    // A run that was not shown a moment ago is not known here, though its worker remembers what it once said of it.
    const isKnown = ({ runId, changed, entryIds }: RenderedRun) =>
      entryIds.every((id) => id in changed || before[runId]?.[id] !== undefined);
    if (!rendered.every(isKnown)) return null;
    return {
      workings,
      frame,
      traces: composeTraces(complete, workings, panels, frame, traces),
      graphs: composeGraphs(complete, own, graphs, frame.scales),
      outcomes: Object.fromEntries(
        rendered.map(({ runId, changed, entryIds }) => [
          runId,
          outcomesOf(before[runId] ?? {}, changed, entryIds),
        ]),
      ),
    };
  }
}

function outcomesOf(
  before: Record<string, ShownOutcome>,
  changed: Record<string, ShownOutcome>,
  entryIds: readonly string[],
): Record<string, ShownOutcome> {
  if (Object.keys(changed).length === 0 && Object.keys(before).length === entryIds.length) return before;
  return Object.fromEntries(entryIds.map((id) => [id, changed[id] ?? before[id]]));
}
