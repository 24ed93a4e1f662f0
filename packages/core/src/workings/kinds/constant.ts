import { Refusal } from '../../refusal';
import { leadingNumber } from '../../units/typed';
import { type Unit, parseUnit } from '../../units/unit';
import { exactly } from '../../results/quantity';
import { describe } from '../../statistics/describe';
import { later, numberField, textField } from '../fields';
import { defineKind } from '../kind';
import { type NamedResult } from '../outcome';

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
    /** Values that were read again and again; their mean is the value, and its standard error the uncertainty. */
    repeats: later(textField('Repeats', 1000)),
  },
  customaryName: () => 'c',
  sentence: ({ name }) => (name === '' ? 'constant' : ''),
  evaluate({ id, name, value: typed, uncertainty: said, unit, shift, repeats }) {
    const mean = repeats.trim() === '' ? null : meanOfRepeats(repeats);
    const value = mean?.value ?? typed;
    const uncertainty = mean?.standardError ?? said;
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
            degreesOfFreedom: mean === null ? Infinity : mean.count - 1,
            influences: () =>
              uncertainty > 0
                ? [
                    {
                      // What two people copied is one root only as long as neither types something else.
                      root: `constant/${id}/${value}/${uncertainty}`,
                      label: name,
                      effect: { first: 0, weights: Float64Array.of(uncertainty) },
                    },
                  ]
                : [],
          },
          roundTo: null,
          main: true,
        },
        ...(mean === null
          ? []
          : [
              plain('sd', 'sd', mean.standardDeviation, parseUnit(unit), mean.standardDeviation),
              plain('count', 'repeats', mean.count, [], 1),
            ]),
      ],
      notes: shift === 0 ? [] : ['Changed by the slider. Reset before quoting results.'],
      fitted: null,
    };
  },
});

const plain = (key: string, name: string, value: number, unit: Unit, roundTo: number): NamedResult => ({
  key,
  name,
  quantity: exactly(value, unit),
  roundTo,
  main: false,
});

/**
 * Repeated values as they were typed, between blanks, semicolons or lines: mean, standard deviation, and the standard error of
 * the mean s/√n (JCGM 100:2008, 4.2.3).
 * @throws Refusal where there are less than two, or one of them is no number
 */
export function meanOfRepeats(text: string): {
  value: number;
  standardDeviation: number;
  standardError: number;
  count: number;
} {
  const words = text.split(/[\s;]+/).filter((word) => word !== '');
  const values = words.map((word) => Number(word.replace('−', '-').replace(/^(-?\d*),(\d+)$/, '$1.$2')));
  const wrong = values.findIndex((value) => !Number.isFinite(value));
  if (wrong >= 0)
    throw new Refusal(
      `“${words[wrong]}” is no number. Type the values with blanks between them: 1.21 1.19 1.22.`,
    );
  if (values.length < 2) throw new Refusal('A mean with its uncertainty needs two values at least.');
  const { count, mean, standardDeviation } = describe(Float64Array.from(values));
  return { value: mean, standardDeviation, standardError: standardDeviation / Math.sqrt(count), count };
}

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
