import { type CheckKindHere, met, notYet, quantityOf } from './check';

export const connected: CheckKindHere = {
  kind: 'connected',
  title: 'A sensor is connected',
  needsChannel: true,
  number: null,
  isOnce: false,
  sentence: (symbol) => `A sensor measures ${symbol}`,
  stateOf: (check, bench) => (quantityOf(check, bench) === undefined ? notYet('Connect one.') : met),
};
