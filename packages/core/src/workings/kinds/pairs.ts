import { type PairGives } from '../../timing/pair';
import { divideUnits } from '../../units/unit';
import { metre, second } from './timing';

const speed = divideUnits(metre, second);

/** What two passes that belong together tell. */
export const givenByPairs = {
  first: { title: 'speed at the first', quantity: 'speed', unit: speed },
  second: { title: 'speed at the second', quantity: 'speed', unit: speed },
  between: { title: 'time between', quantity: 'time', unit: second },
  acceleration: { title: 'acceleration', quantity: 'acceleration', unit: divideUnits(speed, second) },
} as const;

export const pairOptions = (Object.keys(givenByPairs) as PairGives[]).map((key) => ({
  key,
  title: givenByPairs[key].title,
}));
