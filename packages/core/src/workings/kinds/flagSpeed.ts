import { flagSpeeds } from '../../timing/flag';
import { divideUnits } from '../../units/unit';
import { later, numberField, resultField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { metre, second, timedOutcome } from './timing';

/** The speed of a flag, or a ball, of typed length, one value a pass. */
export const flagSpeed = defineKind({
  kind: 'flagSpeed',
  title: 'speed of a flag',
  yields: 'series',
  offered: 'nowhere',
  offers: [],
  fields: {
    of: seriesField('Beam'),
    length: resultField('Length of the flag'),
    offCentre: later(numberField('A ball misses the middle by up to / mm', 0, 0)),
  },
  customaryName: () => 'v',
  sentence: ({ of, length }, nameOf) => `${nameOf(length)} over the time that ${nameOf(of)} was blocked`,
  evaluate: ({ name, of, length, offCentre }, context) =>
    timedOutcome(
      {
        name,
        beams: [of],
        quantity: 'speed',
        unit: divideUnits(metre, second),
        length: { of: length, called: 'The length of the flag', offCentre },
        work: flagSpeeds,
      },
      context,
    ),
});
