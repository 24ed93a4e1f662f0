import { flagSpeeds } from '../../timing/flag';
import { divideUnits } from '../../units/unit';
import { resultField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { metre, second, timedOutcome } from './timing';

/** The speed of a flag, or a ball, of typed length, one value a pass. */
export const flagSpeed = defineKind({
  kind: 'flagSpeed',
  title: 'speed of a flag',
  yields: 'series',
  offered: 'nowhere',
  offers: [],
  fields: { of: seriesField('Beam'), length: resultField('Length of the flag') },
  customaryName: () => 'v',
  sentence: ({ of, length }, nameOf) => `${nameOf(length)} over the time that ${nameOf(of)} was blocked`,
  evaluate: ({ name, of, length }, context) =>
    timedOutcome(
      {
        name,
        beams: [of],
        quantity: 'speed',
        unit: divideUnits(metre, second),
        length: { of: length, called: 'The length of the flag' },
        work: flagSpeeds,
      },
      context,
    ),
});
