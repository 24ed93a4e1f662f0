import { type BroughtSheet, type GuideItem } from '@heuristor/contracts';
import { check, choice, result, sketch, step, words } from './items';
import { forSeconds, readAt } from './plans';

export const hookeGuide = (sheet: BroughtSheet): GuideItem[] => [
  sketch('expect', 'Sketch the force against the stretch of a cord', ['x', 'm', 0, 0.5], ['F', 'N', 0, 20]),
  step(
    'zero',
    'Zero the force sensor with the cord slack',
    'Hold the end of the cord so that it just does not hang, and let it count from there.',
    { picture: 'cord', checks: [check('connected', 'F'), check('zeroed', 'F'), check('still', 'F')] },
  ),
  step('record', 'Pull slowly and evenly, once for each cord', 'Name the runs after the cords.', {
    setting: { plan: forSeconds(5), sensors: [readAt('F', 50)] },
    checks: [check('recorded', '', 2)],
  }),
  step(
    'mark',
    'Mark the part that is straight',
    'Force is drawn against stretch, and not against time. Leave out where the hand began and where it stopped.',
    { setting: { sheet } },
  ),
  result('thin', 'The stiffness of the thin cord', [24, 1, 'N/m']),
  result('thick', 'The stiffness of the thick cord', [38, 1.5, 'N/m']),
  choice(
    'work',
    'The area under the force against the stretch is …',
    ['the work that the hand has done', 'the stiffness of the cord', 'the momentum of the hand'],
    0,
  ),
  words(
    'double',
    'A cord is stretched twice as far. How many times the work does it take, and why?',
    'Four times: the stretch is twice as long, and the mean force on the way is twice as large.',
  ),
];
