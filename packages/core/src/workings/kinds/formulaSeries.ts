import { hasDerivative } from '../../formula/tree';
import { parsed } from '../../formula/parsed';
import { orRefusal, Refusal } from '../../refusal';
import { formulaField, integerField, textField } from '../fields';
import { understood, wantedUnit } from '../formulas';
import { defineKind } from '../kind';
import { seriesOfFormula } from '../seriesOfFormula';

/** A series worked out from others, reading by reading, by a formula that somebody typed. */
export const formulaSeries = defineKind({
  kind: 'formulaSeries',
  title: 'series by a formula',
  yields: 'series',
  offered: 'sheet',
  offers: [{ title: 'Series by a formula', preset: {} }],
  fields: {
    formula: formulaField('Formula'),
    unit: textField('Shown in', 40),
    windowPoints: integerField('Window', { low: 3, high: 1001, odd: true, usual: 9, slider: 61 }),
  },
  customaryName: () => 'q',
  // Where nothing is differentiated, a window means nothing.
  idle: ({ formula: { text } }) => (differentiates(text) ? [] : ['windowPoints']),
  sentence: ({ formula: { text } }) => text,
  evaluate({ name, formula, unit: asked, windowPoints }, context) {
    const speaking = understood(formula, context);
    const { unit } = wantedUnit(asked, speaking.checked);
    const before = context.before?.kind === 'series' ? context.before.series : undefined;
    const series = seriesOfFormula(speaking, context, { symbol: name, unit, windowPoints }, before);
    return {
      kind: 'series',
      series,
      notes: differentiates(formula.text) ? [`Derivatives are taken over ${windowPoints} readings.`] : [],
    };
  },
});

function differentiates(text: string): boolean {
  const found = orRefusal(() => parsed(text));
  return !(found instanceof Refusal) && hasDerivative(found);
}
