import { rateWords } from '../../ui/rateText';
import { type CheckKindHere, met, notMeasured, notYet, quantityOf } from './check';

export const rate: CheckKindHere = {
  kind: 'rate',
  title: 'The rate is enough',
  needsChannel: true,
  number: { label: 'readings a second', usual: 50, unit: 'Hz' },
  isOnce: false,
  sentence: (symbol, amount) => `${symbol} is read at least ${amount} times a second`,
  stateOf: (check, bench) => {
    const quantity = quantityOf(check, bench);
    if (quantity === undefined) return notMeasured(check);
    const { stream } = quantity;
    // Edges are told by when they come, however many there are.
    if (stream.sampling !== 'regular' || stream.rate >= (check.number ?? 0)) return met;
    return notYet(`It takes ${rateWords(stream.rate)} now. Press the rate in the plan.`);
  },
};
