import { defineFieldType } from './fieldType';
import { seriesNamedBy } from './seriesNamedBy';

/** An interval that holds for one run alone. */
export interface OwnInterval {
  run: string;
  start: number;
  end: number;
}

export interface OwnIntervalsShape {
  type: 'ownIntervals';
  label: string;
  usual: readonly OwnInterval[];
  /** The field that names the series in whose unit they are given. */
  inUnitOf: string;
}

/** Intervals of single runs, in the unit of the series that a field names. */
export const ownIntervalsField = (label: string, inUnitOf: string) =>
  ({ type: 'ownIntervals', label, usual: [], inUnitOf }) as const;

export const ownIntervals = defineFieldType<OwnIntervalsShape, readonly OwnInterval[]>({
  usual: ({ usual }) => usual,
  unitSeries: (_value, { inUnitOf }, values) => seriesNamedBy(inUnitOf, values),
  inUnits(value, _field, { runId, read }) {
    const own = value.find(({ run }) => run === runId);
    return own === undefined
      ? undefined
      : [{ run: runId, start: read(own.start, false), end: read(own.end, false) }];
  },
});
