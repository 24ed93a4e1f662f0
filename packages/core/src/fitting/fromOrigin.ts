import { type FitPoints, type Relation, type RelationSolution } from './relation';

/** Beyond so many times the reach of the points, the zero of an axis says nothing about them, and costs their digits. */
const farAway = 1000;

/** Where the zero of the axis lies so far off, a place from which to count instead: the least of all; null where it is near. */
export function originFor({ x }: FitPoints): number | null {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < x.length; i++) {
    if (x[i] < low) low = x[i];
    if (x[i] > high) high = x[i];
  }
  const reach = high - low;
  return reach > 0 && Math.min(Math.abs(low), Math.abs(high)) > farAway * reach ? low : null;
}

/** The same relation, its axis counted from another place: its numbers are those of that place, its curve lies where the points are. */
export function countedFrom<R extends Relation>(relation: R, origin: number): R {
  const moved = ({ x, y }: FitPoints): FitPoints => ({ x: x.map((place) => place - origin), y });
  const movedSolution = (solved: RelationSolution): RelationSolution => ({
    ...solved,
    value: (own, x) => solved.value(own, x - origin),
    slope: (own, x) => solved.slope(own, x - origin),
    gradient: (own, x) => solved.gradient(own, x - origin),
    ...(solved.bounded === undefined
      ? {}
      : {
          bounded: {
            ...solved.bounded,
            among: (all, places) => movedSolution(solved.bounded?.among(all, places) ?? solved),
          },
        }),
  });
  const { remarks } = relation;
  return {
    ...relation,
    value: (parameters, x) => relation.value(parameters, x - origin),
    solve: (points, hint) => movedSolution(relation.solve(moved(points), hint)),
    ...(remarks === undefined
      ? {}
      : { remarks: (points: FitPoints, solved: RelationSolution) => remarks(moved(points), solved) }),
  };
}
