import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { readAt, spotReadings } from './plans';

export const resonanceGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch(
    'expect',
    'Sketch the amplitude of the reed against the frequency of the driver',
    ['f', 'Hz', 10, 25],
    ['A', 'mm', 0, 10],
  ),
  step('centre', 'Centre the trace on zero', 'With the driver off, let the reed rest and zero its sensor.', {
    picture: 'reed',
    checks: [check('connected', 'y'), check('zeroed', 'y'), check('still', 'y')],
  }),
  step(
    'record',
    'Step the frequency, and take the amplitude at each',
    'Wide steps at first, fine ones near the peak. Wait some seconds after each step: the swing of the reed’s own has to die away.',
    { setting: { plan: spotReadings(), sensors: [readAt('y', 500)] }, checks: [check('recorded', '', 1)] },
  ),
  step(
    'work',
    'Fit a resonance curve',
    'Look at its residuals: a slow scatter about zero is good, a wave is not.',
    { setting: { sheet } },
  ),
  result('f0', 'The frequency of resonance', [17.3, 0.2, 'Hz']),
  result('q', 'The quality factor Q', null),
  choice(
    'narrow',
    'A reed with less damping has a peak that is …',
    ['higher and narrower', 'higher and wider', 'lower and narrower'],
    0,
  ),
  words(
    'steps',
    'Why must the steps be finer near the peak?',
    'The amplitude changes fastest there, within a hertz or so; with wide steps the peak and its width would be missed.',
  ),
];
