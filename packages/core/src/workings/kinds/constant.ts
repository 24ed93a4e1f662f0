import { Refusal } from '../../refusal';
import { leadingNumber } from '../../units/typed';
import { parseUnit } from '../../units/unit';
import { numberField, textField } from '../fields';
import { defineKind } from '../kind';

/** A number that somebody typed, with what it is uncertain by: the same for all runs, a root of uncertainty of its own. */
export const constant = defineKind({
  kind: 'constant',
  title: 'constant',
  yields: 'results',
  offered: 'sheet',
  offers: [{ title: 'Constant', preset: {} }],
  fields: {
    value: numberField('Value', 1),
    uncertainty: numberField('Uncertainty', 0, 0),
    unit: textField('Unit', 40),
    source: textField('Source', 200),
    /** Between which values it may be slid, such as "0.2 to 0.4"; twice its uncertainty to either side where nothing is said. */
    ends: textField('Slider', 60),
    /** How far a hand has slid it from its value, to see what follows. */
    shift: numberField('Slid by', 0),
  },
  customaryName: () => 'c',
  sentence: ({ name }) => (name === '' ? 'constant' : ''),
  evaluate({ id, name, value, uncertainty, unit, shift }) {
    if (uncertainty < 0) throw new Refusal(`An uncertainty is not negative; ${uncertainty} is.`);
    return {
      kind: 'results',
      results: [
        {
          key: 'value',
          name: name === '' ? 'value' : name,
          quantity: {
            value: value + shift,
            unit: parseUnit(unit),
            standardUncertainty: uncertainty > 0 ? uncertainty : null,
            degreesOfFreedom: Infinity,
            influences: () =>
              uncertainty > 0
                ? [
                    {
                      root: `constant/${id}`,
                      label: name,
                      effect: { first: 0, weights: Float64Array.of(uncertainty) },
                    },
                  ]
                : [],
          },
          roundTo: null,
          main: true,
        },
      ],
      notes: shift === 0 ? [] : ['Slid from its value, to see what follows; put it back for the result.'],
      fitted: null,
    };
  },
});

/**
 * The ends of the slider of a constant; null where it has none: no uncertainty, and no ends that were typed.
 * @throws Refusal where the typed ends are none
 */
export function sliderEnds({
  value,
  uncertainty,
  ends,
}: {
  value: number;
  uncertainty: number;
  ends: string;
}): { low: number; high: number } | null {
  if (ends.trim() === '')
    return uncertainty > 0 ? { low: value - 2 * uncertainty, high: value + 2 * uncertainty } : null;
  const first = leadingNumber(ends);
  const second = first === null ? null : leadingNumber(first.rest.replace(/^(to|…|\.\.\.?|–|and)\s*/, ''));
  if (first === null || second === null || second.rest !== '' || !(second.value > first.value))
    throw new Refusal('Type the lower and the upper end, like 0.2 to 0.4.');
  return { low: first.value, high: second.value };
}
