import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const slopeThreeWaysGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch(
    'expect',
    'Sketch how far the boat has come while it runs down the slip',
    ['t', 's', 0, 3],
    ['x', 'm', 0, 2],
    {
      over: 'x',
    },
  ),
  step(
    'set',
    'Hold the boat at the top of the slip',
    'The sensor looks down the slip. $x$ grows as the boat runs away from it; if it falls, reverse its sign in the set-up.',
    {
      picture: 'slope',
      checks: [
        check('connected', 'x'),
        check('rate', 'x', 30),
        check('still', 'x'),
        check('sign', 'x', 0.3, 'm'),
      ],
    },
  ),
  step(
    'record',
    'Let it go, twice at the same slope and once at a steeper one',
    'The run begins by itself a moment after you let go, so that your hand is not in it.',
    {
      setting: { plan: fromLevel(['x', 'rise', 0.02, 'm'], 3, 0.2), sensors: [readAt('x', 50, true)] },
      checks: [check('recorded', '', 3)],
    },
  ),
  step(
    'work',
    'Read the acceleration in three ways',
    'From the parabola through $x$, from the slope of $v$ and as the mean of $a$. All three lie on the same region.',
    { setting: { sheet } },
  ),
  choice('noise', 'Which of the three curves scatters most?', ['x', 'v', 'a'], 2, {
    text: 'Look at the curves themselves before you answer.',
  }),
  result('path', 'The acceleration of the first run, by the parabola', null),
  choice(
    'agree',
    'Do the three agree within their uncertainties?',
    [
      'Yes, each within about two of its uncertainties',
      'No, they differ by more than that',
      'That cannot be told without a book',
    ],
    0,
  ),
  words(
    'which',
    'Which of the three would you report, and why?',
    'The parabola through x: it uses the readings as they are. v and a are worked out from them, and each step makes the scatter larger.',
  ),
];
