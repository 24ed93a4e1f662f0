import { type Outcome, type Quantity, halfWidth, intervalOf, timesOf } from '@heuristor/core';
import { type ShownOutcome, type ShownQuantity } from './protocol';

/** What a screen is told of an outcome. */
export function shownOutcome(outcome: Outcome): ShownOutcome {
  switch (outcome.kind) {
    case 'refused':
      return outcome;
    case 'region':
      return outcome;
    case 'series': {
      const { symbol, quantity, unit, sampling, values } = outcome.series;
      const { passes } = outcome;
      return {
        kind: 'series',
        symbol,
        quantity,
        unit,
        interval: intervalOf(sampling),
        notes: outcome.notes,
        ...(passes === undefined
          ? {}
          : {
              passes: {
                times: timesOf(sampling).slice(),
                values,
                uncertainties: outcome.series.uncertainties ?? new Float64Array(values.length).fill(NaN),
                leftOut: passes.leftOut,
                mean: passes.mean === null ? null : shownQuantity(passes.mean),
                standardDeviation: passes.standardDeviation,
              },
            }),
      };
    }
    case 'results': {
      const { results, notes, fitted } = outcome;
      return {
        kind: 'results',
        results: results.map(({ key, name, quantity, roundTo, main, working }) => ({
          key,
          name,
          roundTo,
          main,
          isWorkedOut: working !== undefined,
          ...shownQuantity(quantity),
        })),
        notes,
        correlations: fitted?.correlations ?? null,
        count: fitted?.count ?? null,
      };
    }
  }
}

function shownQuantity(quantity: Quantity): ShownQuantity {
  const { value, unit, standardUncertainty, degreesOfFreedom } = quantity;
  return {
    value,
    unit,
    standardUncertainty,
    halfWidth: halfWidth(quantity),
    degreesOfFreedom: Number.isFinite(degreesOfFreedom) ? degreesOfFreedom : null,
  };
}
