import { type CheckKindHere, met, notYet } from './check';

export const conditions: CheckKindHere = {
  kind: 'conditions',
  title: 'Conditions are typed',
  needsChannel: false,
  number: null,
  isOnce: false,
  sentence: () => 'The conditions of every run are typed',
  stateOf: (_, { plan, runs }) => {
    const lacking = runs.filter((run) =>
      plan.conditions.some(({ key }) => run.conditions[key] === undefined),
    );
    if (runs.length > 0 && lacking.length === 0) return met;
    return notYet(
      lacking.length === 0 ? '' : `They are missing of ${lacking.map(({ name }) => name).join(', ')}.`,
    );
  },
};
