import { plainName, printedUnit, ucumCode } from '@heuristor/core';
import { type ViewColumn } from './tableView';

/** Two axes on which a relation is a line: formulas of columns, or the columns themselves. */
export interface Straightening {
  title: string;
  /** Which relation becomes a line, and what its slope is then. */
  says: string;
  /** Null where the column stands as it is. */
  upright: string | null;
  across: string | null;
}

/** How a column is written into a formula. */
const writtenIn = ({ title }: ViewColumn) => (plainName.test(title) ? title : `{${title}}`);

/** A number without its unit, as logarithms want it. */
const over = (column: ViewColumn): string => {
  const unit = column.unit ?? [];
  return unit.length === 0 ? writtenIn(column) : `${writtenIn(column)}/(1 [${ucumCode(unit)}])`;
};

/** The axes that make lines of the relations of a power, of a square, of an exponential. */
export function straightenings(x: ViewColumn, y: ViewColumn): Straightening[] {
  const [a, b] = [writtenIn(x), writtenIn(y)];
  const per = printedUnit(x.unit ?? []);
  return [
    { title: `${y.title}² against ${x.title}`, says: 'y = √(k x): slope k', upright: `${b}^2`, across: null },
    { title: `${y.title} against ${x.title}²`, says: 'y = k x²: slope k', upright: null, across: `${a}^2` },
    { title: `${y.title} against 1/${x.title}`, says: 'y = k/x: slope k', upright: null, across: `${a}^-1` },
    { title: `${y.title} against ${x.title}⁻²`, says: 'y = k/x²: slope k', upright: null, across: `${a}^-2` },
    { title: `${y.title} against ${x.title}⁻³`, says: 'y = k/x³: slope k', upright: null, across: `${a}^-3` },
    {
      title: `ln ${y.title} against ${x.title}`,
      says: `y = y₀ e^(x/x₀): slope 1/x₀${per === '' ? '' : `, per ${per}`}`,
      upright: `ln(${over(y)})`,
      across: null,
    },
    {
      title: `ln ${y.title} against ln ${x.title}`,
      says: 'y = k xⁿ: slope n',
      upright: `ln(${over(y)})`,
      across: `ln(${over(x)})`,
    },
  ];
}
