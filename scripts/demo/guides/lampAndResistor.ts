import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { forSeconds, readAt } from './plans';

export const lampAndResistorGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch('expect', 'Sketch the current of a lamp against its voltage', ['U', 'V', 0, 6], ['I', 'mA', 0, 500]),
  step('set', 'Put the resistor into the circuit', 'The sensor reads voltage and current at once.', {
    picture: 'circuit',
    checks: [check('connected', 'U'), check('connected', 'I'), check('zeroed', 'I')],
  }),
  step(
    'record',
    'Raise the voltage slowly, for the resistor and for the lamp',
    'Three seconds from nothing to 6 V.',
    {
      setting: { plan: forSeconds(3), sensors: [readAt('U', 100)] },
      checks: [check('recorded', '', 2)],
    },
  ),
  step('work', 'Draw current against voltage', 'A line through zero is a resistance that stays the same.', {
    setting: { sheet },
  }),
  result('ohm', 'The resistance of the resistor, far up', [22, 0.6, 'Ohm']),
  result('grown', 'By what factor the resistance of the lamp has grown far up', null),
  choice(
    'warm',
    'The resistance of the lamp grows because its filament …',
    ['becomes warm', 'becomes longer', 'begins to glow, which uses up charge'],
    0,
  ),
  words(
    'back',
    'Lower the voltage again. Why does the curve of the lamp not run back on itself?',
    'The filament takes time to cool: at the same voltage it is warmer on the way down than it was on the way up, and its resistance is larger.',
  ),
];
