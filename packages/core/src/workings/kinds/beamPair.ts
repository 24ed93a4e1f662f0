import { type PairGives, pairs } from '../../timing/pair';
import { choiceField, resultField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { givenByPairs, pairOptions } from './pairs';
import { timedOutcome } from './timing';

/** A flag of typed length that passes two beams, one after the other: one value a journey. */
export const beamPair = defineKind({
  kind: 'beamPair',
  title: 'flag through two beams',
  yields: 'series',
  offered: 'nowhere',
  offers: [],
  fields: {
    first: seriesField('One beam'),
    second: seriesField('Other beam'),
    gives: choiceField<PairGives>('Gives', pairOptions),
    length: resultField('Length of the flag'),
  },
  sentence: ({ first, second, gives, length }, nameOf) =>
    `${givenByPairs[gives].title} of a flag of ${nameOf(length)} through ${nameOf(first)} and ${nameOf(second)}`,
  evaluate: ({ name, first, second, gives, length }, context) =>
    timedOutcome(
      {
        name,
        beams: [first, second],
        ...givenByPairs[gives],
        length: { of: length, called: 'The length of the flag' },
        work: (edges) => pairs(edges, 2, gives),
      },
      context,
    ),
});
