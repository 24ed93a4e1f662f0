import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, number, result, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const pendulumGuide = (sheet: BroughtSheet): GuideItem[] => [
  choice(
    'expect',
    'The bell is pulled further to the side. What becomes of its period?',
    [
      'It grows, but only a little',
      'It doubles with the amplitude',
      'It stays exactly the same',
      'It becomes shorter',
    ],
    0,
    { isBefore: true },
  ),
  sketch(
    'graph',
    'Sketch two swings of the bell, pulled to 0.5 rad and let go',
    ['t', 's', 0, 4],
    ['θ', 'rad', -0.8, 0.8],
    {
      over: 'θ',
    },
  ),
  step(
    'hang',
    'Let the bell hang at rest and zero its sensor',
    'The angle counts from where the bell hangs by itself. Wait until it no longer moves.',
    { picture: 'pendulum', checks: [check('connected', 'θ'), check('still', 'θ'), check('zeroed', 'θ')] },
  ),
  step(
    'record',
    'Record three runs: pulled to about 10°, 30° and 60°',
    'The run begins by itself as the bell swings through its rest. Name each run after its amplitude.\n\nTake 50 readings a second: a swing lasts one and a half seconds.',
    {
      setting: { plan: fromLevel(['θ', 'rise', 0, 'rad'], 14), sensors: [readAt('θ', 50)] },
      checks: [check('rate', 'θ', 30), check('recorded', '', 3)],
    },
  ),
  step(
    'work',
    'Look at ω and α under θ',
    'Each is the rate of change of the one above. Put the cursor where θ is greatest, and read the two below.',
    { setting: { sheet } },
  ),
  choice(
    'sign',
    'Where θ is greatest, the angular acceleration α is …',
    ['greatest and of the same sign', 'greatest in size and of opposite sign', 'zero'],
    1,
  ),
  result('period', 'The period at the smallest amplitude', [1.56, 0.03, 's'], {
    text: 'Choose it from the run with the smallest amplitude.',
  }),
  number(
    'growth',
    'By how many per cent is the period at 60° longer than that of a very small swing?',
    [7.3, 1, '%'],
    {
      text: 'The series for the period begins with $T = T_0\\left(1 + \\tfrac{1}{16}\\theta_m^2 + \\dots\\right)$, with the amplitude in radians.',
    },
  ),
  words(
    'why',
    'Why does the period grow with the amplitude?',
    'What pulls the bell back grows with sin θ, and so more slowly than θ. For a large amplitude it is weaker than what a swing of the same period would need, and the swing takes longer.',
  ),
];
