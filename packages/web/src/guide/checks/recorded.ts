import { type CheckKindHere, met, notYet } from './check';

export const recorded: CheckKindHere = {
  kind: 'recorded',
  title: 'Runs are recorded',
  needsChannel: false,
  number: { label: 'runs', usual: 1, unit: '' },
  isOnce: false,
  sentence: (_, amount) => `${amount} ${amount === '1' ? 'run is' : 'runs are'} recorded`,
  stateOf: ({ number }, { runs }) => {
    const count = runs.filter(({ state }) => state === 'ended').length;
    if (count >= (number ?? 1)) return met;
    return notYet(count === 0 ? '' : `${count} so far.`);
  },
};
