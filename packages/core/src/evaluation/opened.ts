import { type Influence, type Quantity } from '../results/quantity';
import { rowsOfCovariance } from '../results/semidefinite';
import { parseUnit } from '../units/unit';
import { type OwnRoot, type StoredEvaluation, type StoredNumber, type StoredResult } from './stored';

/** A stored result that can be reckoned with again. */
export interface OpenedResult extends Omit<StoredResult, 'value' | 'unit' | 'standardUncertainty'> {
  runId: string;
  quantity: Quantity;
}

export const numberOf = (value: StoredNumber): number => Number(value);

/**
 * Stored results as quantities: their uncertainties, their covariances with each other and with the results of other runs, and
 * their budgets are those of the results that were stored. What a root of the run does to them is stored as numbers of its own, which
 * mean nothing beside the results of another evaluation of the same run: those are to be evaluated, and stored, together.
 */
export function openedEvaluation({ runId, results, shared, own }: StoredEvaluation): OpenedResult[] {
  const influences = results.map((): Influence[] => []);
  for (const { root, label, moves } of shared)
    for (const [result, by] of moves)
      influences[result].push({
        root,
        label,
        effect: { first: 0, weights: Float64Array.of(numberOf(by)) },
      });
  for (const one of own) {
    const rows = rowsOfCovariance(triangleOf(one));
    // What is no number moves a result by what is none.
    const unknown = () => new Float64Array(1).fill(NaN);
    one.results.forEach((result, i) =>
      influences[result].push({
        root: `${one.root}/${rootName(one, results)}`,
        label: one.label,
        effect: { first: 0, weights: rows?.[i] ?? unknown() },
      }),
    );
  }
  return results.map(({ value, unit, standardUncertainty, ...rest }, i) => ({
    ...rest,
    runId,
    quantity: {
      value: numberOf(value),
      unit: parseUnit(unit),
      standardUncertainty: standardUncertainty === null ? null : numberOf(standardUncertainty),
      degreesOfFreedom: rest.degreesOfFreedom === null ? Infinity : numberOf(rest.degreesOfFreedom),
      influences: () => influences[i],
    },
  }));
}

/** Other results of the same run that were stored elsewhere know nothing of these numbers: their root is called otherwise. */
const rootName = ({ results: moved }: OwnRoot, results: readonly StoredResult[]): string =>
  moved
    .map((i) => `${results[i].sheet}/${results[i].entry}/${results[i].field}=${results[i].value}`)
    .join(' ');

function triangleOf({ results, covariance }: OwnRoot): number[][] {
  let place = 0;
  return results.map((_, i) => Array.from({ length: i + 1 }, () => numberOf(covariance[place++])));
}

/** Covariances that the readings of the run give to all results of an evaluation, as a whole matrix. */
export function ownCovariance({ results, own }: StoredEvaluation): number[][] {
  const matrix = results.map(() => results.map(() => 0));
  for (const one of own)
    triangleOf(one).forEach((row, i) =>
      row.forEach((value, j) => {
        const [a, b] = [one.results[i], one.results[j]];
        matrix[a][b] += value;
        if (a !== b) matrix[b][a] += value;
      }),
    );
  return matrix;
}
