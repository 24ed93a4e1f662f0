import { square } from '../elementary';
import { fitRelation } from '../fitting/fit';
import { sine } from '../fitting/models/sine';
import { Refusal } from '../refusal';
import { describe } from '../statistics/describe';
import { type SpotReading, type SpotReadings } from './mean';

/** A swing whose halves differ by more than this share, and by more than their uncertainties say, still grows or dies. */
const steadyShare = 0.02;
const steadyDeviations = 4;
const fewestPeriods = 2;

/**
 * Amplitude or frequency of a swing from the sine through a series of readings. A swing that still grows or dies away is reported
 * from its two halves.
 * @throws Refusal where there is no swing to speak of, or the interval holds less than two periods of it
 */
export function spotSwing(readings: SpotReadings, what: 'amplitude' | 'frequency'): SpotReading {
  const { values, interval } = readings;
  const whole = sineThrough(values, interval);
  const { standardDeviation, count } = describe(values);
  if (whole === null || whole.rSquared < 0.5)
    throw new Refusal('There is no steady swing to be read. Let it swing, or take the mean instead.');
  const reach = interval * (values.length - 1);
  if (reach < fewestPeriods * whole.period)
    throw new Refusal(
      `The swing has a period of about ${whole.period.toPrecision(2)} s; listen for at least ${(fewestPeriods * whole.period).toPrecision(2)} s.`,
    );
  const middle = values.length >> 1;
  const [early, late] = [
    sineThrough(values.subarray(0, middle), interval),
    sineThrough(values.subarray(middle), interval),
  ];
  const difference = early === null || late === null ? Infinity : Math.abs(late.amplitude - early.amplitude);
  const doubt = early === null || late === null ? 0 : Math.hypot(early.amplitudeU, late.amplitudeU);
  const isSteady = difference <= Math.max(steadyShare * whole.amplitude, steadyDeviations * doubt);
  const reading =
    what === 'amplitude'
      ? { value: whole.amplitude, standardUncertainty: whole.amplitudeU }
      : { value: 1 / whole.period, standardUncertainty: whole.periodU / square(whole.period) };
  return {
    ...reading,
    spread: standardDeviation,
    count,
    unsteady: isSteady ? null : { kind: 'grows', by: difference },
  };
}

function sineThrough(values: Float64Array, interval: number) {
  const places: number[] = [];
  const found: number[] = [];
  values.forEach((value, i) => {
    if (Number.isNaN(value)) return;
    places.push(i * interval);
    found.push(value);
  });
  try {
    const fit = fitRelation(sine, { x: Float64Array.from(places), y: Float64Array.from(found) });
    const [amplitude, period] = fit.parameters;
    const [amplitudeU, periodU] = fit.standardUncertainties;
    return { amplitude, period, amplitudeU, periodU, rSquared: fit.rSquared };
  } catch (error) {
    if (error instanceof Refusal) return null;
    throw error;
  }
}
