import { type TrackPlan } from './track';

/** A track whose runs begin at zero, with the zero that it has where it rested last. */
export function zeroedAtStart<T extends TrackPlan>(track: T): T {
  const rest = track.still?.rest ?? null;
  if (rest === null || track.fields.applied === null) return track;
  const { scale, fields } = track;
  const { applied } = track.fields;
  const before = applied.zero?.offset ?? 0;
  const shift = scale * (before - rest.offset);
  return {
    ...track,
    offset: track.offset + shift,
    fields: {
      ...fields,
      low: fields.low === null ? null : fields.low + shift,
      high: fields.high === null ? null : fields.high + shift,
      applied: { ...applied, offset: track.offset + shift, zero: { ...rest, at: applied.zero?.at ?? '' } },
    },
  };
}
