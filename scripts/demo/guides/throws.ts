import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, step, words } from './items';
import { forSeconds } from './plans';

export const throwsGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'The ball is thrown level, twice as fast. It lands …',
    ['twice as far away', 'four times as far away', 'as far away as before'],
    0,
    { isBefore: true },
  ),
  step(
    'measure',
    'Measure the ball with a caliper, and the height of the gate',
    'The gate tells how long the ball blocks the beam: its diameter over that time is its speed. Aim so that its middle passes the beam.',
    { picture: 'gate', checks: [check('connected', 'A')] },
  ),
  step(
    'record',
    'Throw ten times through the gate, as evenly as you can',
    'Each throw shows its speed in large digits.',
    {
      setting: { plan: forSeconds(60) },
      checks: [check('recorded', '', 1)],
    },
  ),
  step('work', 'Look at the mean and the spread of the speeds', '_Trials_ draws each throw as a point.', {
    setting: { sheet },
  }),
  result('mean', 'The mean speed of your throws', null),
  result('lands', 'Where the ball should land', null, { text: 'The distance from below the gate.' }),
  choice(
    'ten',
    'With forty throws in place of ten, the uncertainty of the mean speed is …',
    ['half as large', 'a quarter as large', 'the same'],
    0,
  ),
  words(
    'test',
    'Lay a sheet of carbon paper where it should land, and throw once more. What do you find?',
    'It lands within about the spread of a single throw of the expected place: the mean is known better than where one throw goes.',
  ),
];
