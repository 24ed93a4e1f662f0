import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, number, result, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const ringingCircuitGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'The capacitor is replaced by one of four times the capacitance. The frequency becomes …',
    ['a quarter', 'half', 'twice as high'],
    1,
    { isBefore: true, text: 'Think of $f = 1/(2\\pi\\sqrt{LC})$.' },
  ),
  step(
    'set',
    'Connect coil and capacitor, and the sensor across both',
    'Type what is printed on them as constants, with their tolerances.',
    {
      picture: 'circuit',
      checks: [check('connected', 'U'), check('rate', 'U', 20_000, 'Hz')],
    },
  ),
  step(
    'record',
    'Ring the circuit with a pulse',
    'The run begins by itself as the voltage rises, and lasts a hundredth of a second.',
    {
      setting: { plan: fromLevel(['U', 'rise', 1, 'V'], 0.02, 0.001), sensors: [readAt('U', 50_000)] },
      checks: [check('recorded', '', 1)],
    },
  ),
  step('work', 'Fit a damped sine to the ringing', 'Leave out the pulse itself.', { setting: { sheet } }),
  number('f', 'The frequency with 470 nF', [2320, 15, 'Hz'], { digits: { least: 3, most: 4 } }),
  result('Q', 'Q of the circuit with 470 nF', [18.2, 0.6, '']),
  choice(
    'agree',
    'The measured frequency and 1/(2π√LC) …',
    ['agree within the tolerances of the parts', 'differ by more than these allow', 'are exactly equal'],
    0,
  ),
  words(
    'decay',
    'What makes the ringing die away?',
    'The resistance of the wire of the coil: it turns the energy into warmth, the more the larger the current is.',
  ),
];
