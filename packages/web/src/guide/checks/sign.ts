import { mean } from 'd3-array';
import { type CheckKindHere, met, notMeasured, notYet, quantityOf } from './check';

const restSeconds = 0.5;

export const sign: CheckKindHere = {
  kind: 'sign',
  title: 'The sign is right',
  needsChannel: true,
  number: { label: 'changes at first by', usual: 0.1, unit: 'of the channel' },
  isOnce: true,
  sentence: (symbol, amount) =>
    `${symbol} ${amount.startsWith('−') ? 'falls' : 'rises'} by ${amount.replace('−', '')} when it is moved the way that counts`,
  stateOf: (check, bench) => {
    const quantity = quantityOf(check, bench);
    if (quantity === undefined) return notMeasured(check);
    const { times, values } = bench.threadOf(quantity);
    const wanted = check.number ?? 0;
    const rest = values.filter((value, i) => times[i] < times[0] + restSeconds && Number.isFinite(value));
    if (rest.length === 0 || wanted === 0) return notYet();
    const from = mean(rest) ?? NaN;
    const moved = values.find((value) => Math.abs(value - from) >= Math.abs(wanted));
    if (moved === undefined) return notYet();
    if (Math.sign(moved - from) === Math.sign(wanted)) return met;
    return notYet(`It went the other way. Reverse its sign in the set-up of ${quantity.device.code}.`);
  },
};
