import { Refusal } from '../../refusal';
import { type LineKind } from '../kind';
import { type RegionLine } from '../lines';

export const region: LineKind<RegionLine> = {
  kind: 'region',
  sentence: ({ name }) => name,
  evaluate({ start, end }) {
    if (!(end > start))
      throw new Refusal('This region has no length. Its end must be greater than its start.');
    return { kind: 'region', start, end };
  },
};
