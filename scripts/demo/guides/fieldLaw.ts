import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, number, sketch, step, words } from './items';
import { spotReadings } from './plans';

export const fieldLawGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'The distance to the magnet is doubled. Far from it, the field falls to …',
    ['a half', 'a quarter', 'an eighth'],
    2,
    { isBefore: true },
  ),
  sketch('shape', 'Sketch the field against the distance', ['d', 'm', 0, 0.2], ['B', 'mT', 0, 10]),
  step(
    'zero',
    'Zero the probe far away from the magnet',
    'The Earth and the iron in the table have fields too. The probe feels at the mark near its tip: measure from there.',
    { picture: 'magnet', checks: [check('connected', 'B'), check('zeroed', 'B')] },
  ),
  step(
    'record',
    'Take readings at ten distances or more',
    'Close together near the magnet, further apart beyond. A reading that is pinned at the limit of the range is no measurement: choose the coarse range there.',
    { setting: { plan: spotReadings() }, checks: [check('recorded', '', 1)] },
  ),
  step(
    'work',
    'Try several relations, and judge them by their residuals',
    'A curve that lies above the readings at both ends and below them in the middle is the wrong one, however close it looks.',
    { setting: { sheet } },
  ),
  number('power', 'The power of the distance with which the field falls', [-3, 0.25, ''], {
    text: 'On two logarithmic axes it is the slope of the line.',
  }),
  words(
    'near',
    'Close to the magnet the field is weaker than the law of the far field says. Why?',
    'The law holds where the magnet is small beside the distance. Near it, its two poles lie at clearly different distances.',
  ),
];
