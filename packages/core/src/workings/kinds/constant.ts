import { Refusal } from '../../refusal';
import { parseUnit } from '../../units/unit';
import { numberField, textField } from '../fields';
import { defineKind } from '../kind';

/** A number that somebody typed: the same for all runs, a root of uncertainty of its own. */
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
    ends: textField('Slider', 60),
  },
  customaryName: () => 'c',
  sentence: ({ name }) => (name === '' ? 'constant' : ''),
  evaluate({ id, name, value, uncertainty, unit }) {
    if (uncertainty < 0) throw new Refusal(`An uncertainty is not negative; ${uncertainty} is.`);
    return {
      kind: 'results',
      results: [
        {
          key: 'value',
          name: name === '' ? 'value' : name,
          quantity: {
            value,
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
      notes: [],
      fitted: null,
    };
  },
});
