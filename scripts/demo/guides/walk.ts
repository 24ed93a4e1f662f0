import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { forSeconds, readAt } from './plans';
import { line } from '../walkLine';

export const walkGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch(
    'expect',
    'Sketch the graph of somebody who stands still, walks away quickly, waits and comes back slowly',
    ['t', 's', 0, 10],
    ['x', 'm', 0, 3],
    { over: 'x' },
  ),
  step('set', 'Stand in front of the sensor and walk to and fro', 'What it reads grows as you go away.', {
    picture: 'walk',
    checks: [check('connected', 'x'), check('sign', 'x', 0.5, 'm')],
  }),
  step(
    'record',
    'Follow the line, twice',
    'You see yourself as you walk. Try to be on the line, and not behind it.',
    {
      setting: {
        plan: {
          ...forSeconds(10),
          way: 'pace',
          pace: line,
        },
        sensors: [readAt('x', 20)],
      },
      checks: [check('recorded', '', 2)],
    },
  ),
  step(
    'work',
    'Look at how close you came, and at the slope of each stretch',
    'A steeper line is a faster walk.',
    { setting: { sheet } },
  ),
  choice(
    'slope',
    'Where the line falls, you …',
    ['walk towards the sensor', 'walk away from it', 'walk more slowly'],
    0,
  ),
  choice(
    'flat',
    'Where the line is level, your speed is …',
    ['zero', 'constant, but not zero', 'greatest'],
    0,
  ),
  result('close', 'How far you were off the line, on the whole, the second time', null),
  words(
    'late',
    'On which stretches were you off most, and why?',
    'After each bend: it takes part of a second to see that the line has turned, and to turn with it.',
  ),
];
