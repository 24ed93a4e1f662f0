import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, number, result, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const capacitorGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch(
    'expect',
    'Sketch the voltage of the capacitor as it discharges',
    ['t', 's', 0, 5],
    ['U', 'V', 0, 6],
    {
      over: 'U',
    },
  ),
  step(
    'set',
    'Charge the capacitor of the beacon',
    'The voltage sensor lies across the capacitor. Read on the resistor and the capacitor what they should have, with their tolerances, and type both as constants.',
    { picture: 'capacitor', checks: [check('connected', 'U'), check('rate', 'U', 50)] },
  ),
  step(
    'record',
    'Let it discharge through the resistor',
    'The run begins by itself as the voltage falls, and keeps half a second from before.',
    {
      setting: { plan: fromLevel(['U', 'fall', 4.8, 'V'], 6, 0.5), sensors: [readAt('U', 100)] },
      checks: [check('recorded', '', 1)],
    },
  ),
  step(
    'work',
    'Fit an exponential, and draw ln U',
    'Leave out the end, where the voltage is as small as its noise: its logarithm scatters without end.',
    { setting: { sheet } },
  ),
  result('tau', 'The time constant by the curve', [1.0, 0.12, 's']),
  number('share', 'After one time constant, so much of the voltage is left', [36.8, 0.5, '%'], {
    digits: { least: 2, most: 3 },
  }),
  choice('straight', 'ln U against time is a straight line. Its slope is …', ['τ', '−1/τ', '−τ', '1/U'], 1),
  words(
    'agree',
    'Compare the time constant with R·C. Do they agree, and which of them is known better?',
    'They agree within the tolerances of the parts. The curve tells τ to a fraction of a per cent, the product only to about 6 %, since the capacitor may be off by 10 %.',
  ),
];
