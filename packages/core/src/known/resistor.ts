import { Refusal } from '../refusal';

/** Colours of the bands on a resistor, in the order of their digits (IEC 60062:2016, table 1; from memory). */
export const bandColours = [
  'black',
  'brown',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'violet',
  'grey',
  'white',
  'gold',
  'silver',
  'pink',
] as const;
export type BandColour = (typeof bandColours)[number];

/** Tolerance of the last band, as a share. */
const tolerances: Partial<Record<BandColour, number>> = {
  brown: 0.01,
  red: 0.02,
  orange: 0.0005,
  yellow: 0.0002,
  green: 0.005,
  blue: 0.0025,
  violet: 0.001,
  grey: 0.0001,
  gold: 0.05,
  silver: 0.1,
};

/** Tolerance of a resistor without a band for it. */
const withoutBand = 0.2;

const powerOf = (colour: BandColour) =>
  colour === 'gold' ? -1 : colour === 'silver' ? -2 : colour === 'pink' ? -3 : bandColours.indexOf(colour);

/**
 * What the bands on a resistor say: two or three digits, a power of ten, and how far it may be off. That it lies anywhere within
 * its tolerance is a standard uncertainty of its half width over √3 (JCGM 100:2008, 4.3.7).
 * @param bands three to five colours, from the end that is nearer to its band
 * @throws Refusal where they say nothing
 */
export function resistorOf(bands: readonly BandColour[]): {
  ohms: number;
  tolerance: number;
  standardUncertainty: number;
} {
  if (bands.length < 3 || bands.length > 5)
    throw new Refusal(`A resistor has three to five bands that tell its value, not ${bands.length}.`);
  const digitCount = bands.length === 5 ? 3 : 2;
  const digits = bands.slice(0, digitCount).map((colour) => bandColours.indexOf(colour));
  const wrong = digits.findIndex((digit) => digit > 9);
  if (wrong >= 0)
    throw new Refusal(
      `Band ${wrong + 1} is a digit, and ${bands[wrong]} is none. Read it from the other end.`,
    );
  if (digits.every((digit) => digit === 0)) throw new Refusal('These bands say 0 Ω: a bridge, no resistor.');
  const power = powerOf(bands[digitCount]);
  const last = bands.length > 3 ? bands[bands.length - 1] : null;
  const tolerance = last === null ? withoutBand : tolerances[last];
  if (tolerance === undefined)
    throw new Refusal(
      `The last band is the tolerance, and ${last ?? 'none'} is none. Read it from the other end.`,
    );
  const number = digits.reduce((value, digit) => 10 * value + digit, 0);
  const ohms = Number(`${number}e${power}`);
  return { ohms, tolerance, standardUncertainty: (ohms * tolerance) / Math.sqrt(3) };
}
