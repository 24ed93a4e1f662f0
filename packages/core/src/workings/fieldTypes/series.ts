import { type SeriesRef } from '../references';
import { defineFieldType } from './fieldType';

export interface SeriesShape {
  type: 'series';
  label: string;
  /** Whether the abscissa may be chosen too. */
  axis: boolean;
  /** Where the abscissa stands for no series at all: what that is called. */
  none?: string;
}

export const seriesField = (label = 'Of') => ({ type: 'series', label, axis: false }) as const;
export const axisField = (label = 'Against') => ({ type: 'series', label, axis: true }) as const;
export const anySeriesField = (label: string, none: string) =>
  ({ type: 'series', label, axis: true, none }) as const;

export const series = defineFieldType<SeriesShape, SeriesRef>({
  usual: ({ axis }) => (axis ? 't' : undefined),
  // What may stand for nothing does so at first.
  ofNew: ({ axis, none }, { key, of, horizontal }) =>
    none !== undefined ? 't' : axis && key !== 'of' ? horizontal : of,
  uses: (value) => ({ series: [value] }),
  withReferences: (value, map) => map.series(value),
});
