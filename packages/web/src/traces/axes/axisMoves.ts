import { type Sight } from '../../workers/protocol';
import { asLengths, shareOf } from './axisScale';

/** An axis that is narrower than this share of its own numbers looks like a point. */
const narrowest = 1e-12;

const isWide = ({ from, to }: Sight): boolean =>
  Number.isFinite(from) &&
  Number.isFinite(to) &&
  to - from > narrowest * Math.max(Math.abs(from), Math.abs(to));

/** A part of an axis moved along by a share of itself. */
export function panned(before: Sight, share: number): Sight {
  const after = asLengths(before, ({ from, to }) => {
    const shift = share * (to - from);
    return { from: from + shift, to: to + shift };
  });
  return isWide(after) ? after : before;
}

/** A part of an axis zoomed about a value, which stays where it is; below 1 brings nearer. The same where it could not be shown. */
export function zoomed(before: Sight, about: number, factor: number): Sight {
  const place = shareOf(about, before);
  const after = asLengths(before, ({ from, to }) => {
    const middle = from + place * (to - from);
    return { from: middle - (middle - from) * factor, to: middle + (to - middle) * factor };
  });
  return isWide(after) ? after : before;
}

/**
 * A part of an axis of which one end is pulled so that the value that was grabbed comes to another place; the other end stays.
 * @param grabbed where along the axis it was grabbed, 0 at its beginning and 1 at its end
 * @param place where that value is to be
 */
export function pulled(before: Sight, end: 'from' | 'to', grabbed: number, place: number): Sight {
  const least = 0.02;
  const after = asLengths(before, ({ from, to }) => {
    if (end === 'to') return { from, to: from + ((to - from) * grabbed) / Math.max(place, least) };
    return { from: to - ((to - from) * (1 - grabbed)) / Math.max(1 - place, least), to };
  });
  return isWide(after) ? after : before;
}

/** Which part of an axis a hand takes hold of: an end, which it pulls, or the middle, which moves all of it. */
export const gripAt = (place: number): 'from' | 'to' | 'all' =>
  place < 0.25 ? 'from' : place > 0.75 ? 'to' : 'all';

/** The axis after a hand has moved on it from one place to another. */
export function draggedAxis(before: Sight, grabbed: number, place: number): Sight {
  const grip = gripAt(grabbed);
  return grip === 'all' ? panned(before, grabbed - place) : pulled(before, grip, grabbed, place);
}
