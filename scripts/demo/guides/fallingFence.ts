import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, number, step, words } from './items';
import { forSeconds } from './plans';

export const fallingFenceGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'A heavier card falls through the gate. Its acceleration is …',
    ['larger', 'the same', 'smaller'],
    1,
    { isBefore: true },
  ),
  step(
    'measure',
    'Measure from the front edge of one bar to that of the next',
    'Type it as the constant _s_, with its uncertainty: what it is off by makes every speed off by as much.',
    { picture: 'gate', checks: [check('connected', 'A')] },
  ),
  step(
    'record',
    'Let the card fall through the gate, three times',
    'Hold it upright, close above the gate. The gate tells edges only: nothing comes until the card passes.',
    { setting: { plan: forSeconds(2) }, checks: [check('recorded', '', 3)] },
  ),
  step('work', 'Draw the speed of each bar against time', 'Each pair of edges makes one speed.', {
    setting: { sheet },
  }),
  number('g', 'Your value of g', [9.81, 0.1, 'm/s2'], {
    digits: { least: 3, most: 4 },
    text: 'The speed grows by $g$ in every second: it is the slope of $v$ against $t$.',
  }),
  choice(
    'tilt',
    'A card that falls tilted gives a value of g that is …',
    ['too large', 'too small', 'right'],
    0,
    { text: 'Think of how far the card falls between two edges that are tilted.' },
  ),
  words(
    'zero',
    'The line through v does not begin at zero. Why?',
    'The clock starts with the first edge; the card has fallen some way by then and is moving already.',
  ),
];
