import { type Level } from '@heuristor/contracts';
import { type Heard } from './heard';

interface Moment {
  at: number;
  value: number;
}

/** A level in the unit of its quantity. */
export interface Threshold {
  value: number;
  /** So far beyond the level on either side is more than noise. */
  margin: number;
}

/** What a level has seen so far of the readings that are held against it. */
export interface CrossingWatch {
  readonly last: Moment | null;
  /** It has been clearly on the side from which the crossing has to come. */
  readonly isReady: boolean;
  /** A crossing that has to be confirmed, and how many readings have stood beyond the level since. */
  readonly candidate: { at: number; beyond: number; isClear: boolean } | null;
  /** The last readings, where a speed is wanted. */
  readonly recent: readonly Moment[];
}

export const nothingSeen: CrossingWatch = { last: null, isReady: false, candidate: null, recent: [] };

/** Speed is the slope of a line through so many readings; its moment is the middle one's. */
const speedReadings = 5;
/** Noise of a speed by the noise of a reading, times the rate: √(12/(n(n² − 1))) for n readings. */
export const speedNoise = Math.sqrt(12 / (speedReadings * (speedReadings ** 2 - 1)));
/** Two readings beyond the level are a motion, one may be a wrong echo. */
const fewestBeyond = 2;

/** The slope of the line of least squares through readings, a second, at the middle of their times. */
function speedOf(readings: readonly Moment[]): Moment {
  const at = readings.reduce((sum, moment) => sum + moment.at, 0) / readings.length;
  const mean = readings.reduce((sum, { value }) => sum + value, 0) / readings.length;
  let [product, square] = [0, 0];
  for (const moment of readings) {
    product += (moment.at - at) * (moment.value - mean);
    square += (moment.at - at) ** 2;
  }
  return { at, value: (product / square) * 1000 };
}

/**
 * Holds readings against a level. Noise about the level is no crossing: the motion has to come from clearly before it and go
 * clearly beyond it. The crossing lies where the straight line between the readings on its two sides meets the level.
 * @param after only what lies after this moment counts, in ms
 * @returns the moment of the crossing, or what is known for the readings to come
 */
export function watchLevel(
  watch: CrossingWatch,
  { of, direction }: Pick<Level, 'of' | 'direction'>,
  { value: threshold, margin }: Threshold,
  { moments, values }: Heard,
  after = -Infinity,
): number | CrossingWatch {
  const sign = direction === 'rise' ? 1 : -1;
  let { last, isReady, candidate, recent } = watch;
  for (let i = 0; i < values.length; i++) {
    if (Number.isNaN(values[i]) || !(moments[i] > after)) continue;
    let present: Moment = { at: moments[i], value: values[i] };
    if (of === 'speed') {
      recent = [...recent.slice(-(speedReadings - 1)), present];
      if (recent.length < speedReadings) continue;
      present = speedOf(recent);
    }
    const beyond = sign * (present.value - threshold);
    if (beyond < 0) candidate = null;
    else if (candidate === null && isReady && last !== null)
      candidate = {
        at: last.at + ((threshold - last.value) / (present.value - last.value)) * (present.at - last.at),
        beyond: 0,
        isClear: false,
      };
    if (candidate !== null) {
      candidate = {
        at: candidate.at,
        beyond: candidate.beyond + 1,
        isClear: candidate.isClear || beyond >= margin,
      };
      if (candidate.isClear && candidate.beyond >= fewestBeyond) return candidate.at;
    }
    if (beyond < -margin || (margin === 0 && beyond < 0)) isReady = true;
    last = present;
  }
  return { last, isReady, candidate, recent };
}
