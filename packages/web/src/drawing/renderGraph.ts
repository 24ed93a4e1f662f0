import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Outcome,
  type OwnGraph,
  type SeriesRef,
  entryRef,
  readingsSeries,
  thinSeries,
  timed,
} from '@heuristor/core';
import { type RenderRequest, type RunGraph, type Sight, type ThinLine } from '../workers/protocol';
import { type LastSent, stands } from './lastSent';

/** Graphs with axes of their own, as far as a page shows them. */
export function graphsOf(
  { entries }: WorkingsDocument,
  outcomes: Map<string, Outcome>,
  { graphs, width }: Pick<RenderRequest, 'graphs' | 'width'>,
  { lines }: LastSent,
): Partial<Record<SeriesRef, RunGraph>> {
  const drawn: Partial<Record<SeriesRef, RunGraph>> = {};
  for (const { id } of entries) {
    const reference = entryRef(id);
    const sight = graphs[reference];
    const outcome = outcomes.get(id);
    if (sight === undefined || outcome?.kind !== 'results' || outcome.graph === undefined) continue;
    const { horizontal, vertical, shape, x, marks, usual } = outcome.graph;
    if (x.length === 0) continue;
    const reach = usual ?? { from: x[0], to: x[x.length - 1] };
    const inputs = [outcome.graph, sight?.from, sight?.to, width];
    const isKnown = stands(lines.get(reference), inputs, false);
    if (!isKnown) lines.set(reference, { inputs, isCoarse: false });
    drawn[reference] = {
      horizontal,
      vertical,
      shape,
      line: isKnown ? null : lineOf(outcome.graph, sight ?? reach, width),
      reach,
      marks,
    };
  }
  return drawn;
}

function lineOf({ shape, x, y }: OwnGraph, sight: Sight, width: number): ThinLine {
  if (shape === 'bars') return outlineOf(x, y);
  const series = readingsSeries({
    symbol: '',
    quantity: '',
    unit: [],
    timeUnit: [],
    sampling: timed(x),
    values: y,
  });
  return thinSeries(series, sight, Math.max(Math.round(width / 2), 100));
}

/** Bars as the outline of their steps, from zero to zero. */
function outlineOf(edges: Float64Array, heights: Float64Array): ThinLine {
  const bars = heights.length;
  const line = { x: new Float64Array(2 * bars + 2), y: new Float64Array(2 * bars + 2), isBand: false };
  for (let i = 0; i < bars; i++) {
    line.x[2 * i + 1] = edges[i];
    line.x[2 * i + 2] = edges[i + 1];
    line.y[2 * i + 1] = line.y[2 * i + 2] = heights[i];
  }
  line.x[0] = edges[0];
  line.x[2 * bars + 1] = edges[bars];
  return line;
}
