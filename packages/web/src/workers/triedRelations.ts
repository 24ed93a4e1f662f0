import { type WorkingsDocument } from '@heuristor/contracts';
import { type Evaluator, type SeriesRef, tryRelations } from '@heuristor/core';
import { type TriedPoints } from './protocol';

/** Every relation tried on the readings of a region, and so many of these as are drawn beside it. @throws Refusal */
export function triedOn(
  evaluator: Evaluator,
  workings: WorkingsDocument,
  asked: { of: SeriesRef; against: SeriesRef; region: string | null },
): TriedPoints {
  const points = evaluator.points(workings, asked);
  const relations = tryRelations(points, points.units);
  const tried = relations.find(({ found }) => found.kind === 'fitted')?.found;
  const n = points.x.length;
  const most = tried?.kind === 'fitted' ? tried.residuals.x.length : n;
  const places = Array.from({ length: most }, (_, i) => Math.round((i * (n - 1)) / Math.max(most - 1, 1)));
  return {
    x: Float64Array.from(places, (i) => points.x[i]),
    y: Float64Array.from(places, (i) => points.y[i]),
    relations,
  };
}
