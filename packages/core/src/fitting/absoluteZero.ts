import { belowZero, intervalUnit } from '../units/temperature';
import { type Unit } from '../units/unit';
import { countedFrom } from './fromOrigin';
import { type FitPoints, type Relation, type RelationSolution } from './relation';

/** The same relation with its values counted from below: `depth` is added to each before, and taken off the curve again. */
function countedFromBelow(relation: Relation, depth: number): Relation {
  const raised = ({ x, y }: FitPoints): FitPoints => ({ x, y: y.map((value) => value + depth) });
  const loweredSolution = (solved: RelationSolution): RelationSolution => ({
    ...solved,
    value: (own, x) => solved.value(own, x) - depth,
    ...(solved.bounded === undefined
      ? {}
      : {
          bounded: {
            ...solved.bounded,
            among: (all, places) => loweredSolution(solved.bounded?.among(all, places) ?? solved),
          },
        }),
  });
  const { remarks } = relation;
  return {
    ...relation,
    value: (parameters, x) => relation.value(parameters, x) - depth,
    solve: (points, hint) => loweredSolution(relation.solve(raised(points), hint)),
    ...(remarks === undefined
      ? {}
      : { remarks: (points: FitPoints, solved: RelationSolution) => remarks(raised(points), solved) }),
  };
}

/** Which axes of a relation, in these units, count from absolute zero though their scale begins elsewhere. */
export const liftedAxes = ({ multiplies = [] }: Relation, units: { x: Unit; y: Unit }): ('x' | 'y')[] =>
  multiplies.filter((axis) => belowZero(units[axis]) !== 0);

/**
 * A relation in which a temperature in °C or °F is multiplied, divided or raised to a power counts it from absolute zero, as
 * formulas do: twice 20 °C is not 40 °C. Its numbers are then those of kelvin (of Δ°F for °F), its curve lies on the points.
 */
export function fromAbsoluteZero(relation: Relation, units: { x: Unit; y: Unit }): Relation {
  const lifted = liftedAxes(relation, units);
  if (lifted.length === 0) return relation;
  const byX = lifted.includes('x') ? countedFrom(relation, -belowZero(units.x)) : relation;
  const both = lifted.includes('y') ? countedFromBelow(byX, belowZero(units.y)) : byX;
  return {
    ...both,
    parameterNames: (axes) =>
      relation.parameterNames({
        ...axes,
        ...(lifted.includes('x') ? { xUnit: intervalUnit(axes.xUnit) } : {}),
        ...(lifted.includes('y') ? { yUnit: intervalUnit(axes.yUnit) } : {}),
      }),
  };
}
