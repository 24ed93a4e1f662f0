import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, step, words } from './items';
import { forSeconds, readAt } from './plans';

export const stairGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'You climb one metre. The pressure of the air falls by about …',
    ['0.12 Pa', '12 Pa', '1200 Pa'],
    1,
    { isBefore: true, text: 'A cubic metre of air has a mass of about 1.2 kg.' },
  ),
  step('set', 'Lay the barometer at the foot of the stair', 'Keep it out of the wind, and off the heater.', {
    picture: 'stair',
    checks: [check('connected', 'p'), check('rate', 'p', 1)],
  }),
  step('record', 'Wait 45 s at the foot, climb, wait 45 s at the top', 'Carry it level and gently.', {
    setting: { plan: forSeconds(100), sensors: [readAt('p', 5)] },
    checks: [check('recorded', '', 1)],
  }),
  step(
    'work',
    'Mark the stretch at the foot and the one at the top',
    'Leave the climb out. The difference of both means has an uncertainty of its own.',
    {
      setting: { sheet },
    },
  ),
  result('drop', 'The difference of both pressures', [16.7, 1, 'Pa']),
  result('height', 'The height that follows from it', [1.4, 0.08, 'm']),
  choice(
    'scale',
    'An axis of pressure that begins at zero …',
    ['hides what is looked for here', 'shows it best', 'makes no difference'],
    0,
  ),
  words(
    'weather',
    'The weather changes by some pascals an hour. Does that matter here, and how would you find out?',
    'Hardly: a climb takes a minute. Staying at one place for as long as a climb takes, and taking the difference of two stretches, shows how much it is.',
  ),
];
