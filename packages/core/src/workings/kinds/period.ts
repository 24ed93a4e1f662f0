import { periods } from '../../timing/bob';
import { seriesField } from '../fields';
import { defineKind } from '../kind';
import { second, timedOutcome } from './timing';

/** The period of a bob that swings through a beam: every second blocking. */
export const period = defineKind({
  kind: 'period',
  title: 'period of a bob',
  yields: 'series',
  offered: 'nowhere',
  offers: [],
  fields: { of: seriesField('Beam') },
  customaryName: () => 'T',
  sentence: ({ of }, nameOf) => `from one blocking of ${nameOf(of)} to the next but one`,
  evaluate: ({ name, of }, context) =>
    timedOutcome({ name, beams: [of], quantity: 'period', unit: second, work: periods }, context),
});
