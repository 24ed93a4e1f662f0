import { type WheelGives, wheel } from '../../timing/wheel';
import { divideUnits, parseUnit } from '../../units/unit';
import { choiceField, integerField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { second, timedOutcome } from './timing';

const radian = parseUnit('rad');
const given: Record<WheelGives, { title: string; quantity: string; unit: typeof radian }> = {
  angle: { title: 'angle', quantity: 'angle', unit: radian },
  angularSpeed: { title: 'angular speed', quantity: 'angular speed', unit: divideUnits(radian, second) },
};

/** What a wheel tells whose spokes pass a beam. */
export const spokes = defineKind({
  kind: 'spokes',
  title: 'wheel with spokes',
  yields: 'series',
  offered: 'nowhere',
  offers: [],
  fields: {
    of: seriesField('Beam'),
    gives: choiceField<WheelGives>(
      'Gives',
      (Object.keys(given) as WheelGives[]).map((key) => ({ key, title: given[key].title })),
    ),
    number: integerField('Spokes', { low: 1, high: 1000, odd: false, usual: 10, slider: null }),
  },
  sentence: ({ of, gives, number }, nameOf) =>
    `${given[gives].title} of a wheel with ${number} ${number === 1 ? 'spoke' : 'spokes'} in ${nameOf(of)}`,
  evaluate: ({ name, of, gives, number }, context) =>
    timedOutcome(
      { name, beams: [of], ...given[gives], work: (edges) => wheel(edges, number, gives) },
      context,
    ),
});
