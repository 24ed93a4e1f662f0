import { deviation } from 'd3-array';
import { type CheckKindHere, met, notMeasured, notYet, quantityOf } from './check';
import { lately } from './lately';

const seconds = 1.5;
/** Of what rests, nearly no reading scatters beyond so many times the noise of its sensor. */
const noises = 3;

export const still: CheckKindHere = {
  kind: 'still',
  title: 'It rests',
  needsChannel: true,
  number: null,
  isOnce: true,
  sentence: (symbol) => `${symbol} rests before the run`,
  stateOf: (check, bench) => {
    const quantity = quantityOf(check, bench);
    if (quantity === undefined) return notMeasured(check);
    const { noise, resolution } = quantity.channel;
    const { values, reach } = lately(bench.threadOf(quantity), seconds);
    if (values.length < 5 || reach < 0.8 * seconds) return notYet();
    return (deviation(values) ?? 0) <= noises * noise + resolution ? met : notYet('It moves still.');
  },
};
