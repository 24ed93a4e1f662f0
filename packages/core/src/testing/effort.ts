/** Whether simulations take all the repetitions that they can have: in `npm run bench truth`, not before every commit. */
export const isThorough = process.env.HEURISTOR_THOROUGH === '1';

/** How often something is simulated: as often as it takes to tell a fault, or, where there is time, more often. */
export const repetitions = (usual: number, thorough: number): number => (isThorough ? thorough : usual);
