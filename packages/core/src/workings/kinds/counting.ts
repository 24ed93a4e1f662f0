import { type CountingGives, counting as counted } from '../../timing/counting';
import { one } from '../../units/unit';
import { choiceField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { second, timedOutcome } from './timing';

const given: Record<CountingGives, { title: string; quantity: string; unit: typeof one }> = {
  count: { title: 'count', quantity: 'count', unit: one },
  interval: { title: 'interval', quantity: 'time', unit: second },
  duration: { title: 'time in the beam', quantity: 'time', unit: second },
};

/** How often something passed, the time from one to the next, and how long each was in the beam. */
export const counting = defineKind({
  kind: 'counting',
  title: 'count and interval',
  yields: 'series',
  offered: 'nowhere',
  offers: [],
  fields: {
    of: seriesField('Beam'),
    gives: choiceField<CountingGives>(
      'Gives',
      (Object.keys(given) as CountingGives[]).map((key) => ({ key, title: given[key].title })),
    ),
  },
  sentence: ({ of, gives }, nameOf) => `${given[gives].title} of what passes ${nameOf(of)}`,
  evaluate: ({ name, of, gives }, context) =>
    timedOutcome({ name, beams: [of], ...given[gives], work: (edges) => counted(edges, gives) }, context),
});
