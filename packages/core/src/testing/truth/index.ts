import { type TruthCase } from './case';
import { jointCases } from './joint';
import { fewCases, pairCases } from './pairs';
import { repeatCases } from './repeats';
import { restCases } from './rests';
import { stepCases } from './steps';
import { swingCases } from './swings';
import { windowCases } from './windows';

/** Every kind of result whose ± is held against known truth, in `npm test` and, with more repetitions, in `npm run bench truth`. */
export const truthCases: readonly TruthCase[] = [
  ...repeatCases,
  ...swingCases,
  ...stepCases,
  ...restCases,
  ...jointCases,
  ...windowCases,
  ...pairCases,
  ...fewCases,
];
