import { type CheckedKind } from './kind';

export const choice: CheckedKind<'choice'> = {
  kind: 'choice',
  check: (_, right, { chosen }) => {
    const all = new Set(chosen);
    return { isRight: all.size === right.length && right.every((key) => all.has(key)), says: '' };
  },
};
