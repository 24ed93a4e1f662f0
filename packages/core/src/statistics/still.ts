import { exp, square } from '../elementary';
/**
 * What the step of a sensor leaves uncertain about the mean of readings of something that rests. Without noise the mean lies
 * anywhere within a step: step/√12 (JCGM 100:2008, 4.3.7 and F.2.2.1). Noise of standard deviation σ makes readings reach the next
 * steps, and their mean comes nearer to the truth: its error is then Σ (−1)ᵏ step/(πk) · sin(2πk x/step) · exp(−2π²k²σ²/step²), of
 * which this is the root mean square over all x (Fourier series of a staircase, averaged over normal noise).
 * @param step between two neighbouring values of the sensor
 * @param spread standard deviation of the readings as they came
 */
export function uncertaintyByStep(step: number, spread: number): number {
  if (!(step > 0)) return 0;
  // What was read scatters by the noise and, where it reaches several steps, by the steps themselves.
  const noise = Math.max(square(spread / step) - 1 / 12, 0);
  let sum = 0;
  for (let k = 1; k <= terms; k++) sum += exp(-4 * square(Math.PI) * k * k * noise) / (k * k);
  // Of no noise at all the series is π²/6, and the whole step²/12.
  return noise === 0 ? step / Math.sqrt(12) : (step / (Math.PI * Math.SQRT2)) * Math.sqrt(sum);
}

const terms = 20;

/** The mean of readings of something that rests: uncertain by their scatter and by the step of the sensor. */
export function uncertaintyOfRest(spread: number, count: number, step: number): number {
  return Math.hypot(spread / Math.sqrt(count), uncertaintyByStep(step, spread));
}
