import { type CheckedKind } from './kind';
import { isTolerated } from './tolerated';

export const result: CheckedKind<'result'> = {
  kind: 'result',
  check: async ({ unit }, right, answer, valueOf) => ({
    isRight: isTolerated(await valueOf(answer, unit), right),
    says: '',
  }),
};
