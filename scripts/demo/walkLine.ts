import { type PaceTarget } from '@heuristor/contracts';

/** Stand, walk away, stand, come back, more slowly. */
export const line: PaceTarget = {
  quantity: 'x',
  of: 'reading',
  unit: 'm',
  points: [
    { t: 0, value: 0.8 },
    { t: 2, value: 0.8 },
    { t: 4, value: 2 },
    { t: 6, value: 2 },
    { t: 10, value: 1 },
  ],
  made: { kind: 'drawn' },
};
