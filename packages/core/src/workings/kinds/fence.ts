import { type FenceGives, fence as timedFence } from '../../timing/fence';
import { divideUnits } from '../../units/unit';
import { choiceField, resultField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { metre, second, timedOutcome } from './timing';

const speed = divideUnits(metre, second);
const given: Record<FenceGives, { title: string; symbol: string; unit: typeof metre }> = {
  position: { title: 'position', symbol: 'x', unit: metre },
  velocity: { title: 'velocity', symbol: 'v', unit: speed },
  acceleration: { title: 'acceleration', symbol: 'a', unit: divideUnits(speed, second) },
};

/** What a fence of bars tells whose leading edges lie a typed spacing apart. */
export const fence = defineKind({
  kind: 'fence',
  title: 'motion of a fence',
  yields: 'series',
  offered: 'nowhere',
  offers: [],
  fields: {
    of: seriesField('Beam'),
    gives: choiceField<FenceGives>(
      'Gives',
      (Object.keys(given) as FenceGives[]).map((key) => ({ key, title: given[key].title })),
    ),
    spacing: resultField('Spacing of its bars'),
  },
  sentence: ({ of, gives, spacing }, nameOf) =>
    `${given[gives].title} of a fence with bars ${nameOf(spacing)} apart in ${nameOf(of)}`,
  evaluate: ({ name, of, gives, spacing }, context) =>
    timedOutcome(
      {
        name,
        beams: [of],
        quantity: given[gives].title,
        unit: given[gives].unit,
        length: { of: spacing, called: 'The spacing of the bars' },
        work: (edges) => timedFence(edges, gives),
      },
      context,
    ),
});
