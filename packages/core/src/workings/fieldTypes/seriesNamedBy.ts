import { type SeriesRef } from '../references';

/** The series that another field of the entry names; null where that is the abscissa, or no field names one. */
export function seriesNamedBy(
  field: string | undefined,
  values: Readonly<Record<string, unknown>>,
): SeriesRef | null {
  const of = field === undefined ? undefined : (values[field] as SeriesRef | undefined);
  return of === undefined || of === 't' ? null : of;
}
