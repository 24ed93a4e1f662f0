import { type LinkChannel } from '@heuristor/contracts';

/** Standard deviation of a still reading, m: common practice, no source. */
const noise = 0.0003;
const near = 0.15;
const far = 6;
const lostEchoShare = 0.0015;

export const motionChannel: LinkChannel = {
  key: 'x',
  quantity: 'position',
  symbol: 'x',
  unit: 'm',
  range: { low: near, high: far },
  noise,
};

/**
 * What an ultrasonic motion sensor makes of a distance: noise, a near limit at which it pins, and now and then no echo,
 * which it shows as its far limit.
 */
export class MotionSensor {
  constructor(private readonly random: () => number = Math.random) {}

  read(distance: number): number {
    if (this.random() < lostEchoShare) return far;
    const normal = Math.sqrt(-2 * Math.log(1 - this.random())) * Math.cos(2 * Math.PI * this.random());
    return Math.min(Math.max(distance + noise * normal, near), far);
  }
}
