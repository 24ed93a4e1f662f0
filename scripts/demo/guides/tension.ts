import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const tensionGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'The boat is held, then let go. As it starts, the pull in the line …',
    ['becomes smaller', 'becomes larger', 'stays the weight that hangs'],
    0,
    { isBefore: true },
  ),
  sketch(
    'graph',
    'Sketch the pull in the line: held, hauling, and after the weight has reached the floor',
    ['t', 's', 0, 3],
    ['F', 'N', 0, 1.5],
    { over: 'F' },
  ),
  step('zero', 'Zero the force sensor with the line slack', 'Only then hang the weight, and hold the boat.', {
    picture: 'hangingMass',
    checks: [check('connected', 'F'), check('zeroed', 'F'), check('connected', 'x')],
  }),
  step(
    'record',
    'Record one run with each weight, and type its mass',
    'The run begins by itself as the boat starts, and keeps half a second from before.',
    {
      setting: { plan: fromLevel(['x', 'rise', 0.01, 'm'], 2.2, 0.6), sensors: [readAt('x', 100, true)] },
      checks: [check('rate', 'F', 50), check('recorded', '', 2), check('conditions')],
    },
  ),
  step('work', 'Name the phases: held, hauled', 'Each is a region, with the mean pull in it.', {
    setting: { sheet },
  }),
  result('held', 'The pull while the boat is held, with 100 g', [0.981, 0.02, 'N']),
  result('hauling', 'The pull while it hauls, with 100 g', null),
  choice('fits', 'The pull while it hauls fits …', ['M g', 'M (g − a)', 'M (g + a)'], 1, {
    text: 'With the hanging mass $M$ and the acceleration $a$.',
  }),
  words(
    'why',
    'Why is the pull smaller while the weight falls?',
    'The weight is accelerated too: part of what pulls it down is needed for that, and only the rest is left for the line.',
  ),
];
