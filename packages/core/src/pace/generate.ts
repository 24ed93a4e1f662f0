import { cos } from '../elementary';
import { uniformRandom } from '../random';
import { type PacePoint } from './target';

export interface PaceRoom {
  /** Between these the line stays, in the unit of the quantity. */
  low: number;
  high: number;
  /** No part is steeper, in that unit by second. */
  fastest: number;
}

/** A person walks backwards and forwards at no more than this, in m/s. Common practice, no source. */
export const walkingSpeed = 0.9;
/** Nearer to a motion sensor than this nobody stands, and farther away its beam is wider than a person, in metres. Common practice, no source. */
export const walkingRoom = { low: 0.5, high: 3 };

/** Straight parts of each level, how long they are in seconds, and which share of the fastest pace they use. */
const levels = [
  { parts: 3, seconds: [3, 5], pace: [0.25, 0.45] },
  { parts: 5, seconds: [2.5, 4], pace: [0.25, 0.6] },
  { parts: 7, seconds: [2, 3.5], pace: [0.3, 0.85] },
  { parts: 5, seconds: [3, 4.5], pace: [0.4, 0.9] },
] as const;

/** The highest level is curved: so many points a part. */
const curvedLevel = 4;
const curvePoints = 12;

/**
 * A line of positions to be followed, from a seed: the same seed and level give the same line in the same room. It begins and
 * ends at rest; parts at rest and in motion take turns.
 * @param level 1 to 4: more parts, steeper ones, at last curved ones
 */
export function generatedPositions(seed: number, level: number, room: PaceRoom): PacePoint[] {
  const { parts, seconds, pace } = levels[Math.min(Math.max(Math.round(level), 1), levels.length) - 1];
  const random = uniformRandom(seed * 7919 + level);
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random();
  const span = room.high - room.low;
  let [t, value] = [0, room.low + span * between([0.2, 0.8])];
  const points: PacePoint[] = [{ t, value: rounded(value) }];
  for (let part = 0; part < parts; part++) {
    const duration = between(seconds);
    const isMoving = part % 2 === 1;
    const before = value;
    if (isMoving) {
      // Towards where there is room, so that no part is cut short.
      const up = value - room.low < span * between([0.35, 0.65]);
      const way = Math.min(
        between(pace) * room.fastest * duration,
        up ? room.high - value : value - room.low,
      );
      value += up ? way : -way;
    }
    if (isMoving && level >= curvedLevel)
      for (let k = 1; k < curvePoints; k++) {
        const share = k / curvePoints;
        // Half a cosine begins and ends at rest; its steepest place is π/2 times its mean slope.
        points.push({
          t: rounded(t + duration * share),
          value: rounded(before + ((value - before) * (1 - cos(Math.PI * share))) / 2),
        });
      }
    t += duration;
    points.push({ t: rounded(t), value: rounded(value) });
  }
  return points;
}

/** Seconds in which a person changes pace. */
const rampSeconds = 0.6;

/**
 * A line of speeds to be followed: paces that are held, with short changes between them, chosen so that whoever follows from
 * `start` stays in the room.
 */
export function generatedSpeeds(
  seed: number,
  level: number,
  room: PaceRoom,
): { points: PacePoint[]; start: number } {
  const { parts, seconds, pace } = levels[Math.min(Math.max(Math.round(level), 1), levels.length) - 1];
  const random = uniformRandom(seed * 104_729 + level);
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random();
  const span = room.high - room.low;
  const start = room.low + span * between([0.3, 0.7]);
  let [t, place] = [0, start];
  const points: PacePoint[] = [];
  let speed = 0;
  for (let part = 0; part < parts; part++) {
    const duration = between(seconds);
    const before = speed;
    if (part % 2 === 0) speed = 0;
    else {
      const up = place - room.low < span / 2;
      // The ramps at both ends add half of themselves each.
      const way = up ? room.high - place : place - room.low;
      speed = Math.min(between(pace) * room.fastest, (0.95 * way) / (duration + rampSeconds)) * (up ? 1 : -1);
    }
    if (part > 0) {
      place += ((before + speed) / 2) * rampSeconds;
      t += rampSeconds;
    }
    points.push({ t: rounded(t), value: rounded(speed) });
    place += speed * duration;
    t += duration;
    points.push({ t: rounded(t), value: rounded(speed) });
  }
  return { points, start: rounded(start) };
}

const rounded = (value: number) => Number(value.toFixed(3)) + 0;
