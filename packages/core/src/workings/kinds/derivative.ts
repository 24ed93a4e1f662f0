import { derivative as differentiate } from '../../calculus/derivative';
import { type LineKind } from '../kind';
import { type DerivativeLine } from '../lines';

export const derivative: LineKind<DerivativeLine> = {
  kind: 'derivative',
  sentence: ({ of, windowPoints }, nameOf) =>
    `d ${nameOf(of)}/d ${nameOf('t')} over ${windowPoints} readings`,
  evaluate: ({ name, of, windowPoints }, context) => ({
    kind: 'series',
    series: differentiate(context.series(of), { symbol: name, windowPoints }),
  }),
};
