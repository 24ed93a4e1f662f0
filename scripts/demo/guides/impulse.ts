import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const impulseGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'The string is replaced by an elastic. The boat is caught at the same speed. The greatest pull is then …',
    ['larger', 'smaller', 'the same'],
    1,
    { isBefore: true },
  ),
  sketch(
    'shape',
    'Sketch the pull in the line while it catches the boat',
    ['t', 's', 0, 0.5],
    ['F', 'N', 0, 20],
  ),
  step(
    'zero',
    'Zero the force sensor with the line slack',
    'A taut line would make every area wrong by the same pull.',
    { picture: 'tether', checks: [check('connected', 'F'), check('zeroed', 'F'), check('connected', 'x')] },
  ),
  step(
    'record',
    'Push the boat: string and elastic, light and loaded',
    'Type the mass of each run. 500 readings a second of the pull: a string snatches in a few hundredths of a second.',
    {
      setting: {
        plan: fromLevel(['F', 'rise', 0.5, 'N'], 2.5, 0.7),
        sensors: [readAt('x', 100), readAt('F', 500)],
      },
      checks: [check('rate', 'F', 200), check('recorded', '', 4), check('conditions')],
    },
  ),
  step(
    'work',
    'Hold the area under the pull against m·Δv',
    'Both are on the sheet, with their uncertainties, for each run.',
    { setting: { sheet } },
  ),
  result('area', 'The area under the pull, loaded and on the elastic', null),
  choice(
    'same',
    'The area under the pull and the change of momentum are …',
    [
      'the same within their uncertainties',
      'different: the elastic loses some of it',
      'different: the string loses some of it',
    ],
    0,
  ),
  words(
    'peak',
    'String and elastic change the momentum by about as much. What is different, and why?',
    'The elastic pulls for longer, and so with less force: the area under the pull is the same.',
  ),
];
