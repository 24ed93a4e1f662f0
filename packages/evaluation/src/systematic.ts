import { type Applied, type Channel } from '@heuristor/contracts';
import { type Systematic } from '@heuristor/core';

type Calibrated = Pick<Channel, 'key' | 'symbol' | 'deviceCode' | 'applied'>;

/**
 * What is uncertain about all readings of a channel together: its zero, which a second of still readings gave, and the two readings
 * by which it was calibrated. They move the readings of all runs under the same zero or calibration alike.
 */
export function systematicOf({ key, symbol, deviceCode, applied }: Calibrated, runId: string): Systematic[] {
  if (applied === null) return [];
  const { zero, twoPoint, zeroedAtStart } = applied;
  const owner = `${deviceCode ?? ''}/${key}`;
  const isByPoints = twoPoint !== null && zero?.at === twoPoint.at;
  const zeroRoot = zeroedAtStart ? `zero/${runId}/${key}` : `zero/${owner}/${zero?.at ?? ''}`;
  const uncertainty = zero?.uncertainty ?? 0;
  return [
    ...(isByPoints || uncertainty === 0
      ? []
      : [
          {
            root: zeroRoot,
            label: `zero of ${symbol}`,
            offset: Math.abs(applied.scale) * uncertainty,
            perUnit: 0,
          },
        ]),
    ...(twoPoint === null ? [] : calibrationOf(applied, twoPoint, isByPoints, owner, symbol)),
  ];
}

/**
 * y = c g (s − z) + shift with the gain g = (k₂ − k₁)/(r₂ − r₁): each of the readings r₁ and r₂ moves y by its share of the way to the
 * other typed value; where the zero was taken again since, only the gain is left of them, and grows with what is read.
 */
function calibrationOf(
  { scale, offset, zero }: Applied,
  { gain, points, at }: NonNullable<Applied['twoPoint']>,
  isByPoints: boolean,
  owner: string,
  symbol: string,
): Systematic[] {
  const label = `calibration of ${symbol}`;
  const shift = offset + scale * (zero?.offset ?? 0);
  const [first, second] = points;
  const [u1, u2] = [first.uncertainty ?? 0, second.uncertainty ?? 0];
  if (u1 === 0 && u2 === 0) return [];
  if (!isByPoints) {
    const relative = Math.hypot(u1, u2) / Math.abs(second.read - first.read);
    return [{ root: `gain/${owner}/${at}`, label, offset: -shift * relative, perUnit: relative }];
  }
  const factor = scale / gain;
  const across = second.known - first.known;
  const by = (u: number, other: number, sign: 1 | -1, place: number): Systematic => ({
    root: `calibration/${owner}/${at}/${place}`,
    label,
    offset: (sign * gain * u * (factor * other + shift)) / across,
    perUnit: (-sign * gain * u) / across,
  });
  return [by(u1, second.known, 1, 1), by(u2, first.known, -1, 2)];
}
