import { Refusal } from '../../refusal';
import { axisField, numberField, textField } from '../fields';
import { defineKind } from '../kind';

/** A stretch of one axis, lettered A, B, C … */
export const region = defineKind({
  kind: 'region',
  title: 'region',
  yields: 'region',
  offered: 'nowhere',
  offers: [],
  fields: {
    letter: textField('Letter', 2, 'A', /^[A-Z]{1,2}$/),
    along: axisField('Along'),
    start: numberField('Start'),
    end: numberField('End', 1),
  },
  sentence: ({ name }) => name,
  evaluate({ start, end }) {
    if (!(end > start))
      throw new Refusal('This region has no length. Its end must be greater than its start.');
    return { kind: 'region', start, end, notes: [] };
  },
});
