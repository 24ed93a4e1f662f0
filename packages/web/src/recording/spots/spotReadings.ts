import { type Spot } from '@heuristor/contracts';

/** Whether two states of a series hold the same; the same one may come from the server again and again. */
export const isSameSpot = (a: Spot | null, b: Spot): boolean => JSON.stringify(a) === JSON.stringify(b);
