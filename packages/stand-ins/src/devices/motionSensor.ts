import { type ChannelPlan } from './device';
import { channel } from './device';

/** Limits of an ultrasonic motion sensor, in metres. */
export const motionLimits = { low: 0.15, high: 6 };
/** Standard deviation of a still reading, m: common practice, no source. */
export const motionNoise = 0.0003;
export const motionRates = { lowest: 1, highest: 100, usual: 50 };

/**
 * What an ultrasonic motion sensor makes of a distance: noise, a near limit at which it pins, and now and then no echo,
 * which it shows as its far limit, or an echo of something else.
 */
export const motionChannel = (truth: () => number): ChannelPlan => ({
  channel: channel('x', 'x', 'position', 'm', { ...motionLimits, noise: motionNoise }),
  truth,
  flaws: { lostShare: 0.0015, strayShare: 0.0005 },
});
