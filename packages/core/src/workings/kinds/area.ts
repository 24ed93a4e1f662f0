import { type Area, areaAlongPath, areaBetween } from '../../calculus/area';
import { valuesAtTimesOf } from '../../series/series';
import { multiplyUnits } from '../../units/unit';
import { axisField, regionField, seriesField } from '../fields';
import { flatteningNote } from '../flatteningNote';
import { defineKind } from '../kind';
import { rangeIn, reachNote } from '../selection';
import { weighed } from '../weighed';

/**
 * The area between a series and zero. Its uncertainty is what the noise of the readings does to the sum, of those along the
 * axis too, carried through the weights and, for a derived series, through its filter; how well the shape between readings is
 * met is not in it.
 */
export const area = defineKind({
  kind: 'area',
  title: 'area',
  yields: 'results',
  offered: 'region',
  offers: [{ title: 'area', preset: {} }],
  fields: { of: seriesField(), against: axisField(), region: regionField() },
  sentence: ({ of, against }, nameOf) =>
    against === 't' ? `area under ${nameOf(of)}` : `area under ${nameOf(of)} against ${nameOf(against)}`,
  evaluate({ of, against, region: regionId }, context) {
    const series = context.series(of);
    const other = context.series(against, series);
    const region = context.region(regionId);
    const [first, past] = rangeIn(series, region);
    const plain = against === 't' && (region === null || region.along === 't');
    let found: Area;
    if (plain) found = areaBetween(series, region?.start ?? -Infinity, region?.end ?? Infinity);
    else {
      const x = valuesAtTimesOf(other, series);
      const cutAlong = region !== null && region.along === against && region.along !== 't';
      const y =
        region === null || region.along === 't' || cutAlong
          ? series.values
          : within(series.values, valuesAtTimesOf(context.series(region.along, series), series), region);
      found = areaAlongPath(series.sampling, x, y, { first, past, within: cutAlong ? region : null });
    }
    const { value, bridged, passes } = found;
    const quantity = weighed(value, multiplyUnits(series.unit, other.unit), [
      [series, found.byValues],
      [other, found.byAbscissas],
    ]);
    return {
      kind: 'results',
      results: [{ key: 'area', name: 'area', quantity, roundTo: null, main: true }],
      notes: [
        ...(bridged === 0
          ? []
          : [
              `${bridged} missing ${bridged === 1 ? 'reading was' : 'readings were'} bridged by a straight line.`,
            ]),
        ...(passes > 1 ? [`${passes} passes through the region were added.`] : []),
        ...reachNote(series, region),
        ...(context.moving ? [] : flatteningNote(series, first, past)),
      ],
      fitted: null,
    };
  },
});

/** Values outside a region along a third quantity, taken out. */
function within(values: Float64Array, along: Float64Array, { start, end }: { start: number; end: number }) {
  return values.map((value, i) => (along[i] >= start && along[i] <= end ? value : NaN));
}
