import { sin, square } from '../elementary';
import { Refusal } from '../refusal';

/**
 * Normal gravity of the ellipsoid WGS 84, by the closed formula of Somigliana on its surface and the second-order series in
 * height above it: NIMA TR8350.2, Department of Defense World Geodetic System 1984, 3rd ed. (2000), equations 4-1 and 4-3 and
 * table 3.4.
 */
const atEquator = 9.7803253359;
const somigliana = 0.00193185265241;
const eccentricitySquared = 0.00669437999013;
const semiMajorAxis = 6_378_137;
const flattening = 1 / 298.257223563;
const ratioOfRotation = 0.00344978650684;

/** By how much the real field differs from that of the ellipsoid, as a rule (common practice, no source). */
export const gravityAnomaly = 0.0005;

/**
 * Acceleration of free fall at a latitude in degrees and a height in metres.
 * @throws Refusal where there is no such place, or it is too high for the series
 */
export function normalGravity(latitude: number, height: number): number {
  if (!(Math.abs(latitude) <= 90))
    throw new Refusal(`A latitude lies between −90° and 90°; ${latitude}° does not.`);
  if (!(height >= -500 && height <= 20_000))
    throw new Refusal(`The formula holds from −500 m to 20 000 m of height, not at ${height} m.`);
  const sine2 = square(sin((latitude * Math.PI) / 180));
  const onSurface = (atEquator * (1 + somigliana * sine2)) / Math.sqrt(1 - eccentricitySquared * sine2);
  const first = (2 / semiMajorAxis) * (1 + flattening + ratioOfRotation - 2 * flattening * sine2) * height;
  return onSurface * (1 - first + (3 * height * height) / square(semiMajorAxis));
}
