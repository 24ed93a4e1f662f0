import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, number, result, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const bouncesGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch(
    'expect',
    'Sketch the height of the ball over its first three bounces',
    ['t', 's', 0, 3],
    ['h', 'm', 0, 1.5],
  ),
  step(
    'hang',
    'Hang the sensor over the floor, looking down',
    'It measures how far away the ball is, so that what it reads grows while the ball falls. Read once with the ball on the floor, and type that as the constant _H_: the height is _H_ less the reading.',
    { picture: 'ball', checks: [check('connected', 'x'), check('rate', 'x', 30)] },
  ),
  step('record', 'Let the ball drop, on wood and on a mat', 'The run begins by itself as the ball falls.', {
    setting: { plan: fromLevel(['x', 'rise', 0.65, 'm'], 3, 0.2), sensors: [readAt('x', 50)] },
    checks: [check('recorded', '', 2)],
  }),
  step(
    'work',
    'Fit a parabola between two bounces',
    'Leave out the moments at which the ball touches the floor.',
    {
      setting: { sheet },
    },
  ),
  number('g', 'The acceleration while it flies, without its sign', [9.81, 0.25, 'm/s2'], {
    digits: { least: 2, most: 3 },
  }),
  choice(
    'top',
    'At the top of a bounce the ball has …',
    ['no speed and no acceleration', 'no speed, but an acceleration', 'speed, but no acceleration'],
    1,
  ),
  result('kept', 'The share of the energy that a bounce leaves, on wood', [64, 4, '%']),
  words(
    'where',
    'Where does the energy go that a bounce takes?',
    'Into warmth in the ball and the floor, and a little into sound: both are bent, and do not give all of it back.',
  ),
];
