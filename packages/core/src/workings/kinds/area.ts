import { areaBetween } from '../../calculus/integral';
import { Refusal } from '../../refusal';
import { noiseOfReadings } from '../../series/noise';
import { multiplyUnits } from '../../units/unit';
import { type LineKind } from '../kind';
import { type AreaLine } from '../lines';
import { type Selection, rangeIn, select } from '../selection';

/**
 * The area between a series and zero. Its uncertainty is what the readings' own noise does to the sum, carried through the
 * trapezoidal weights and, for a derived series, through its filter; how well the shape between readings is met is not in it.
 */
export const area: LineKind<AreaLine> = {
  kind: 'area',
  sentence: ({ of, against }, nameOf) =>
    against === 't' ? `area under ${nameOf(of)}` : `area under ${nameOf(of)} against ${nameOf(against)}`,
  evaluate({ of, against, region: regionId }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    const unit = multiplyUnits(series.unit, context.series(against, series).unit);
    const plain = against === 't' && (region === null || region.along === 't');
    const { value, weights, bridged } = plain
      ? areaBetween(series, region?.start ?? -Infinity, region?.end ?? Infinity)
      : areaAlongPath(select(context, series, against, region));
    const [first, end] = plain ? rangeIn(series, region) : [0, series.values.length];
    const noise = noiseOfReadings(series.noise.readings, first, end);
    let norm = 0;
    for (const weight of series.noise.transpose(weights)) norm += weight * weight;
    const uncertainty = noise * Math.sqrt(norm);
    return {
      kind: 'results',
      results: [
        {
          key: 'area',
          name: 'area',
          value,
          standardUncertainty: uncertainty > 0 ? uncertainty : null,
          roundTo: null,
          unit,
          main: true,
        },
      ],
      notes:
        bridged === 0
          ? []
          : [
              `${bridged} missing ${bridged === 1 ? 'reading was' : 'readings were'} bridged by a straight line.`,
            ],
      fitted: null,
    };
  },
};

/** ∫ y dx from reading to reading, in the order in which they were taken. */
function areaAlongPath({ x, y, indices, missing, seriesLength }: Selection): {
  value: number;
  weights: Float64Array;
  bridged: number;
} {
  if (y.length < 2)
    throw new Refusal('An area needs at least two readings in its region. Make the region longer.');
  if (missing > 0)
    throw new Refusal('Readings are missing in this region, so the area would be a guess. Choose another.');
  const weights = new Float64Array(seriesLength);
  let value = 0;
  for (let i = 0; i + 1 < y.length; i++) {
    const half = (x[i + 1] - x[i]) / 2;
    value += half * (y[i] + y[i + 1]);
    weights[indices[i]] += half;
    weights[indices[i + 1]] += half;
  }
  return { value, weights, bridged: 0 };
}
