import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const energyOnSlopeGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch(
    'expect',
    'Sketch the total energy of the boat from the moment it is let go',
    ['t', 's', 0, 4],
    ['E', 'J', 0, 1],
    {
      text: 'It runs down the slip, bounces off the buffer and comes up again.',
    },
  ),
  step(
    'set',
    'Weigh the boat, and measure the tilt of the slip',
    'Type both as constants, with their uncertainties. Zero the sensor with the boat at the top.',
    { picture: 'slope', checks: [check('connected', 's'), check('rate', 's', 30)] },
  ),
  step('record', 'Let the boat run, on clean rails and on sand', 'The run goes on while it bounces.', {
    setting: { plan: fromLevel(['s', 'rise', 0.02, 'm'], 6, 0.2), sensors: [readAt('s', 50, true)] },
    checks: [check('recorded', '', 2)],
  }),
  step(
    'slide',
    'Slide the tilt within its uncertainty and watch the total',
    'No energy comes from nowhere: a tilt with which the total rises while the boat runs cannot have been the tilt.',
    { setting: { sheet } },
  ),
  choice(
    'loss',
    'On sand the total falls faster than on clean rails. At a given speed, the power that is lost is …',
    ['friction times speed', 'friction divided by speed', 'independent of the speed'],
    0,
  ),
  choice(
    'faster',
    'So the total energy falls fastest where the boat is …',
    ['at the top', 'slow', 'fast'],
    2,
  ),
  words(
    'least',
    'Which is the least tilt that can have been, and how do you know?',
    'The one from which on the total does not rise on any stretch: the table on Trials shows it for values of the tilt.',
  ),
];
