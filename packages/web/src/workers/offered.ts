import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  type RelationKey,
  Refusal,
  type SeriesRef,
  orRefusal,
  tryRelations,
} from '@heuristor/core';
import { type ShownOutcome } from './protocol';
import { shownOutcome } from './shownOutcome';

export interface OfferedQuestion {
  /** The sheet with every entry that is offered, as if each had been taken. */
  workings: WorkingsDocument;
  of: SeriesRef;
  against: SeriesRef;
  region: string;
  measures: readonly string[];
  /** Which entry would be the fit of a relation. */
  fits: Partial<Record<RelationKey, string>>;
}

/** How a relation goes through the readings of a region. */
export interface RankedRelation {
  key: RelationKey;
  rSquared: number;
  gap: number;
  hasPattern: boolean;
}

export interface Offered {
  /** By the ids of the entries. Of the relations, the best have one. */
  outcomes: Record<string, ShownOutcome>;
  /** The one first that explains most; none where nothing can be fitted. */
  relations: RankedRelation[];
}

/** So many relations are worked out in full; the others are tried on some of the points only. */
const mostFits = 2;
/** So many points tell which relations are likely, in a moment in which nobody else has to wait. */
const mostPoints = 100;

/** What the entries that are offered on a region would say, and how the relations stand to its readings. */
export function offeredOn(
  evaluator: Evaluator,
  { workings, of, against, region, measures, fits }: OfferedQuestion,
): Offered {
  const points = orRefusal(() => evaluator.points(workings, { of, against, region }));
  const relations =
    points instanceof Refusal
      ? []
      : tryRelations(points, points.units, mostPoints).flatMap(({ key, found }) =>
          found.kind === 'refused'
            ? []
            : [{ key, rSquared: found.rSquared, gap: found.gap, hasPattern: found.hasPattern }],
        );
  const best = relations.slice(0, mostFits).flatMap(({ key }) => fits[key] ?? []);
  const only = new Set([...measures, ...best]);
  const { outcomes } = evaluator.evaluate(workings, { moving: true, only });
  return {
    relations,
    outcomes: Object.fromEntries(
      [...only].flatMap((id) => {
        const outcome = outcomes.get(id);
        return outcome === undefined ? [] : [[id, shownOutcome(outcome)]];
      }),
    ),
  };
}
