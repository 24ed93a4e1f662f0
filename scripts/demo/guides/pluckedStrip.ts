import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { fromLevel, readAt } from './plans';

export const pluckedStripGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch('expect', 'Sketch how the strip moves after it was plucked', ['t', 's', 0, 1], ['y', 'mm', -5, 5], {
    over: 'y',
  }),
  step('centre', 'Let the strip rest, and zero its sensor', 'The driver is off.', {
    picture: 'reed',
    checks: [check('connected', 'y'), check('still', 'y'), check('zeroed', 'y')],
  }),
  step(
    'record',
    'Pluck it, once bare and once with felt on it',
    'It swings seventeen times a second: take 500 readings a second.',
    {
      setting: { plan: fromLevel(['y', 'rise', 1, 'mm'], 2), sensors: [readAt('y', 500)] },
      checks: [check('rate', 'y', 300), check('recorded', '', 2)],
    },
  ),
  step(
    'work',
    'Fit a damped sine',
    'Put the two cursors on two tops, and compare what lies between them with the period of the fit.',
    {
      setting: { sheet },
    },
  ),
  result('f', 'The frequency of the bare strip', [17.3, 0.2, 'Hz']),
  choice(
    'felt',
    'The felt changes …',
    ['mainly how fast the swing dies away', 'mainly the frequency', 'both alike'],
    0,
  ),
  result('Q', 'Q of the bare strip', null),
  words(
    'period',
    'Does the period change while the swing dies away? How can you tell?',
    'It does not, within its uncertainty: the periods cycle by cycle scatter about one value and do not drift.',
  ),
];
