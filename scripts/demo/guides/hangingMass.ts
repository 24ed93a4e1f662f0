import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, number, result, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const hangingMassGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'While the boat is hauled, the pull in the line is …',
    ['equal to the weight that hangs', 'less than the weight that hangs', 'more than the weight that hangs'],
    1,
    { isBefore: true },
  ),
  step(
    'level',
    'Make the track level',
    'Push the boat gently once each way in one run, without a weight. It is to slow down alike both ways.',
    { picture: 'hangingMass', checks: [check('connected', 'x'), check('level', 'x', 0.05, 'm/s2')] },
  ),
  step(
    'zero',
    'Zero the force sensor with the line slack',
    'Then hang the first weight. Keep all weights on the boat that do not hang: the mass that is moved stays the same.',
    { checks: [check('zeroed', 'F')] },
  ),
  step(
    'record',
    'Record one run for each mass, and type it',
    'The planned rows on _Trials_ name the next one. The run begins by itself as the boat starts.',
    {
      setting: {
        plan: fromLevel(['x', 'rise', 0.01, 'm'], 2.6, 0.3),
        sensors: [readAt('x', 100, true)],
      },
      checks: [check('rate', 'x', 50), check('recorded', '', 5), check('conditions')],
    },
  ),
  step(
    'plot',
    'Plot the acceleration against the mass that hangs',
    'The table on _Trials_ has one row a run, and draws the line.',
    { setting: { sheet } },
  ),
  number('g', 'The value of g from the line', [9.81, 0.2, 'm/s2'], {
    digits: { least: 2, most: 3 },
    text: 'With the mass $m$ that is moved in all runs, the slope of the line is $g/m$, but for friction.',
  }),
  result('slowest', 'The acceleration with the smallest mass', null),
  words(
    'friction',
    'The line does not pass through zero. What does the value at zero mass tell?',
    'Friction: without any mass it would slow the boat. The line cuts the axis where the weight is just as large as friction.',
  ),
];
