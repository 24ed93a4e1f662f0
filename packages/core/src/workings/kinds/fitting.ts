import { type Fit, fitRelation } from '../../fitting/fit';
import { type ParameterName, type Relation } from '../../fitting/relation';
import { type Series } from '../../series/series';
import { type Context } from '../context';
import { type SeriesRef } from '../lines';
import { type Selection, select } from '../selection';

export interface FittedSelection {
  fit: Fit;
  names: ParameterName[];
  selection: Selection;
  series: Series;
}

/** Fits a relation to the readings of `of` against `against` in a region. @throws Refusal */
export function fitInRegion(
  relation: Relation,
  line: { of: SeriesRef; against: SeriesRef; region: string | null },
  context: Context,
): FittedSelection {
  const series = context.series(line.of);
  const against = context.series(line.against, series);
  const selection = select(context, series, line.against, context.region(line.region));
  const fit = fitRelation(relation, selection, selection);
  const names = relation.parameterNames({
    xUnit: against.unit,
    yUnit: series.unit,
    xQuantity: against.quantity,
    yQuantity: series.quantity,
    xSymbol: against.symbol,
    ySymbol: series.symbol,
  });
  return { fit, names, selection, series };
}
