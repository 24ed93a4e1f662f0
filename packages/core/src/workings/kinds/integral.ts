import { runningIntegral } from '../../calculus/integral';
import { type LineKind } from '../kind';
import { type IntegralLine } from '../lines';

export const integral: LineKind<IntegralLine> = {
  kind: 'integral',
  sentence: ({ of }, nameOf) => `∫ ${nameOf(of)} d ${nameOf('t')} from the first reading`,
  evaluate: ({ name, of }, context) => ({
    kind: 'series',
    series: runningIntegral(context.series(of), name),
  }),
};
