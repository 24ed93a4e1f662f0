import { type CheckKindHere, met, notMeasured, notYet, quantityOf } from './check';

export const zeroed: CheckKindHere = {
  kind: 'zeroed',
  title: 'The zero was taken',
  needsChannel: true,
  number: null,
  isOnce: false,
  sentence: (symbol) => `The zero of ${symbol} was taken`,
  stateOf: (check, bench) => {
    const quantity = quantityOf(check, bench);
    if (quantity === undefined) return notMeasured(check);
    const { device, channel } = quantity;
    if (channel.zeroAtStart || device.calibration.zeros[channel.key] !== undefined) return met;
    return notYet(`Let it rest, and press Zero at ${device.code}.`);
  },
};
