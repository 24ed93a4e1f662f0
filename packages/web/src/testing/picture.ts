import { type WorkingsDocument, panelOf } from '@heuristor/contracts';
import { type SeriesRef } from '@heuristor/core';
import { composeTraces, frameOf } from '../traces/compose';
import { KnownLines } from '../traces/knownLines';
import { type RenderRequest, type Sight } from '../workers/protocol';
import { extentOf, renderRun } from '../drawing/renderRun';
import { LastSent } from '../drawing/lastSent';
import { type stored } from './runs';

type Evaluators = ReturnType<typeof stored>[];

/** What the bench does of it: extents, a frame, each run's part, and the panels. */
export function pictureOf(
  evaluators: Evaluators,
  workings: WorkingsDocument,
  traces: SeriesRef[],
  {
    sight = null,
    moving = false,
    horizontal = 't',
    heights = {},
  }: {
    sight?: Sight | null;
    moving?: boolean;
    horizontal?: SeriesRef;
    heights?: RenderRequest['heights'];
  } = {},
) {
  const extents = evaluators
    .map((evaluator) => extentOf(evaluator, workings, horizontal))
    .filter((extent) => extent !== null);
  const frame = frameOf(extents, horizontal === 't', { sight });
  const request: RenderRequest = {
    workings,
    horizontal,
    traces,
    sight: frame.sight,
    axisUnit: frame.horizontal.unit,
    width: 600,
    moving,
    visible: null,
    conditions: {},
    frontRunId: null,
    asksForAll: false,
    heights,
    graphs: {},
  };
  const rendered = evaluators.map((evaluator) => renderRun(evaluator, request, new LastSent()));
  const complete = new KnownLines().complete(rendered) ?? [];
  return { frame, rendered, traces: composeTraces(complete, workings, traces.map(panelOf), frame) };
}
