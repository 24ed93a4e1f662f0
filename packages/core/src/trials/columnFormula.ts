import { FormulaFault } from '../formula/fault';
import { isPi, sameName } from '../formula/names';
import { Refusal } from '../refusal';
import { exactly } from '../results/quantity';
import { calculated } from '../workings/kinds/calculation';
import { type NamedResult } from '../workings/outcome';
import { type Cell, nothing } from './cell';

/** What a formula over columns can speak of in one row, by the names of the columns as they are typed. */
export interface RowNames {
  /** What stands there; null where nothing is called so. */
  called(name: string): Cell | null;
}

/**
 * What a formula says of one row, with all that moves it: what two columns owe to the same source counts with its covariance
 * (JCGM 100:2008, 5.2). Where something it needs is missing, it is missing too, with the reason.
 */
export function calculatedCell(formula: string, unit: string, row: RowNames): Cell {
  if (formula.trim() === '') return nothing;
  const named = (name: string): { kind: 'result'; result: NamedResult } => {
    if (isPi(name)) return { kind: 'result', result: resultOf(name, exactly(Math.PI, [])) };
    const cell = row.called(sameName(name));
    if (cell === null)
      throw new Refusal(`Nothing is called ${name} here. Use the name of a column, or of a constant.`);
    if (cell.kind === 'word') throw new Refusal(`${name} is a word here (“${cell.text}”), no number.`);
    if (cell.kind === 'nothing') throw new Refusal(cell.why ?? `${name} is empty here.`);
    return { kind: 'result', result: resultOf(name, cell.quantity) };
  };
  const series = () => {
    throw new Refusal('A column is no series.');
  };
  try {
    const { quantity } = calculated({ formula: { text: formula, names: {} }, unit }, { named, series });
    return { kind: 'number', quantity, roundTo: null };
  } catch (error) {
    if (error instanceof Refusal || error instanceof FormulaFault)
      return { kind: 'nothing', why: error.message };
    throw error;
  }
}

const resultOf = (name: string, quantity: NamedResult['quantity']): NamedResult => ({
  key: 'value',
  name,
  quantity,
  roundTo: null,
  main: true,
});
