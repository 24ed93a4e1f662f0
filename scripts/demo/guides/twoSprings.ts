import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { forSeconds, readAt } from './plans';

export const twoSpringsGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'The same buoy hangs on a soft spring, then on a stiff one. Which has the longer period?',
    ['The soft spring', 'The stiff spring', 'Both have the same'],
    0,
    { isBefore: true },
  ),
  sketch(
    'graph',
    'Sketch where the buoy is during two of its swings',
    ['t', 's', 0, 3],
    ['x', 'm', -0.05, 0.05],
    {
      over: 'x',
    },
  ),
  step(
    'hang',
    'Hang the buoy on the soft spring and zero the sensor at rest',
    'The sensor looks up at it from below.',
    {
      picture: 'spring',
      checks: [check('connected', 'x'), check('still', 'x'), check('zeroed', 'x')],
    },
  ),
  step(
    'record',
    'Record one run on each spring',
    'Pull the buoy down by 3 or 4 cm, let it go, and wait a swing or two before you record. Name the runs after the springs.',
    {
      setting: { plan: forSeconds(8), sensors: [readAt('x', 50)] },
      checks: [check('rate', 'x', 30), check('recorded', '', 2)],
    },
  ),
  step('work', 'Fit a sine to whole swings', 'Its period is a result of its own, with its uncertainty.', {
    setting: { sheet },
  }),
  result('soft', 'The period on the soft spring', [1.283, 0.03, 's']),
  result('stiff', 'The period on the stiff spring', [0.889, 0.03, 's']),
  choice(
    'twice',
    'A spring is twice as stiff. The period becomes …',
    ['half as long', 'shorter by a factor of √2', 'twice as long'],
    1,
    { text: 'With the mass $m$ and the stiffness $k$ it is $T = 2\\pi\\sqrt{m/k}$.' },
  ),
  words(
    'pull',
    'Pull it twice as far and record once more. What becomes of the period, and why?',
    'It stays the same: the force grows with the stretch in proportion, and so does the way that the buoy has to go.',
  ),
];
