import { square } from '../elementary';
import { type FittedPoints } from './covariance';

/**
 * Which share of neighbouring values of a series counts as independent: all of readings; of what went through a filter
 * 1/(1 + 2 Σ ρₖ²) with the correlations ρₖ that the filter makes (Bartlett’s number of independent values for a variance: M. S.
 * Bartlett, J. R. Stat. Soc. 98 (1935) 536).
 */
export function independentShare({ noise, indices }: Pick<FittedPoints, 'noise' | 'indices'>): number {
  if (noise === null || noise.independent || indices.length < 2) return 1;
  const row = noise.row(indices[indices.length >> 1]);
  if (row === null) return 1;
  const { weights } = row;
  const product = (lag: number) => {
    let sum = 0;
    for (let i = lag; i < weights.length; i++) sum += weights[i] * weights[i - lag];
    return sum;
  };
  const own = product(0);
  if (!(own > 0)) return 1;
  let squares = 0;
  for (let lag = 1; lag < weights.length; lag++) squares += square(product(lag) / own);
  return 1 / (1 + 2 * squares);
}
