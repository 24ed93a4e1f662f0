import { type RelationKey, relationKeys, relationOf } from '../../fitting/relations';
import { axisField, choiceField, flagField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { fitOutcome } from './fitOutcome';
import { drawnFields, fitInRegion, weightsField } from './fitting';

export const fit = defineKind({
  kind: 'fit',
  title: 'fit',
  yields: 'results',
  draws: 'curve',
  offered: 'region',
  offers: relationKeys.map((relation) => ({
    title: relationOf(relation).title,
    preset: { relation },
  })),
  fields: {
    relation: choiceField<RelationKey>(
      'Relation',
      relationKeys.map((key) => ({
        key,
        title: `${relationOf(key).title}: ${relationOf(key).formula}`,
      })),
    ),
    of: seriesField(),
    against: axisField(),
    region: regionField(),
    weights: weightsField,
    showResiduals: flagField('Show residuals'),
    ...drawnFields,
  },
  sentence: ({ relation, of, against }, nameOf) =>
    `${relationOf(relation).title} through ${nameOf(of)}${against === 't' ? '' : ` against ${nameOf(against)}`}`,
  evaluate(entry, context) {
    const relation = relationOf(entry.relation);
    return fitOutcome(relation.key, fitInRegion(relation, entry, context), {
      letters: relation.letters,
    });
  },
});
