import { type PairGives, pairs } from '../../timing/pair';
import { choiceField, resultField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { givenByPairs, pairOptions } from './pairs';
import { timedOutcome } from './timing';

/** Two flags of typed length on one cart, through one beam: one value a journey. */
export const flagPair = defineKind({
  kind: 'flagPair',
  title: 'two flags through a beam',
  yields: 'series',
  offered: 'nowhere',
  offers: [],
  fields: {
    of: seriesField('Beam'),
    gives: choiceField<PairGives>('Gives', pairOptions),
    length: resultField('Length of each flag'),
  },
  sentence: ({ of, gives, length }, nameOf) =>
    `${givenByPairs[gives].title} of two flags of ${nameOf(length)} through ${nameOf(of)}`,
  evaluate: ({ name, of, gives, length }, context) =>
    timedOutcome(
      {
        name,
        beams: [of],
        ...givenByPairs[gives],
        length: { of: length, called: 'The length of a flag' },
        work: (edges) => pairs(edges, 1, gives),
      },
      context,
    ),
});
