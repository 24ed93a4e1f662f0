import { defineFieldType } from './fieldType';
import { seriesNamedBy } from './seriesNamedBy';

/** A stretch that holds for one run alone. */
export interface OwnStretch {
  run: string;
  start: number;
  end: number;
}

interface OwnStretchesShape {
  type: 'ownStretches';
  label: string;
  usual: readonly OwnStretch[];
  /** The field that names the series in whose unit they are told. */
  inUnitOf: string;
}

/** Stretches of single runs, in the unit of the series that a field names. */
export const ownStretchesField = (label: string, inUnitOf: string) =>
  ({ type: 'ownStretches', label, usual: [], inUnitOf }) as const;

export const ownStretches = defineFieldType<OwnStretchesShape, readonly OwnStretch[]>({
  usual: ({ usual }) => usual,
  toldOf: (_value, { inUnitOf }, values) => seriesNamedBy(inUnitOf, values),
  inUnits(value, _field, { runId, read }) {
    const own = value.find(({ run }) => run === runId);
    return own === undefined
      ? undefined
      : [{ run: runId, start: read(own.start, false), end: read(own.end, false) }];
  },
});
