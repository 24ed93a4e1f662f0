import { type BeginningKind } from './beginning';

/** With the next reading of the first device, so that runs begin at 0 and not at a fraction of an interval. */
export const atOnce: BeginningKind<{ kind: 'at-once' }, never> = {
  arm(_beginning, [first], now) {
    if (first.sampling !== 'regular') return now;
    const next = Math.max(Math.ceil(((now - first.epoch) * first.rate) / 1000), 0);
    return first.epoch + (next * 1000) / first.rate;
  },
};
