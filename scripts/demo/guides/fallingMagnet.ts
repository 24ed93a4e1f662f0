import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const fallingMagnetGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch(
    'expect',
    'Sketch the voltage of the coil while the magnet falls through',
    ['t', 's', 0, 0.3],
    ['U', 'V', -3, 3],
  ),
  step(
    'set',
    'Hold the magnet a hand’s breadth over the coil',
    'Let it fall straight, onto something soft.',
    {
      picture: 'coil',
      checks: [check('connected', 'U'), check('rate', 'U', 5000, 'Hz')],
    },
  ),
  step('record', 'Let it go', 'The run begins by itself with the voltage, and keeps a moment from before.', {
    setting: { plan: fromLevel(['U', 'fall', -20, 'mV'], 0.3, 0.1), sensors: [readAt('U', 10_000)] },
    checks: [check('recorded', '', 1)],
  }),
  step('work', 'Take the area under each peak', 'An area of voltage over time is a change of flux.', {
    setting: { sheet },
  }),
  choice(
    'peaks',
    'The second peak is …',
    ['higher and narrower than the first', 'just like the first', 'lower and wider than the first'],
    0,
  ),
  result('flux', 'The area under the first peak, with 600 turns', [-22.6, 1.2, 'mWb']),
  choice(
    'areas',
    'The two areas are …',
    ['equal in size', 'larger for the second', 'larger for the first'],
    0,
  ),
  words(
    'why',
    'Why are the areas equal, though the peaks are not?',
    'What goes into the coil comes out of it: the flux rises and falls by the same. The magnet is faster when it leaves, so the voltage is higher and lasts less long.',
  ),
];
