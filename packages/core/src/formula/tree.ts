import { type Unit } from '../units/unit';
import { type FunctionName } from './functions';
import { isPi } from './names';

/** Where a part of a formula stands in its text. */
export interface Place {
  from: number;
  to: number;
}

export type Operation = 'sum' | 'difference' | 'product' | 'quotient' | 'power';

/** A formula as a tree. */
export type Formula = Place &
  (
    | { kind: 'number'; value: number; unit: Unit | null }
    /** What something on the sheet, a quantity of the run, or a parameter is called. */
    | { kind: 'name'; name: string }
    | { kind: 'negative'; of: Formula }
    | { kind: Operation; left: Formula; right: Formula }
    | { kind: 'call'; name: FunctionName; of: Formula[] }
    /** d(of)/d(by), once or twice. */
    | { kind: 'derivative'; of: Formula; by: string; order: 1 | 2 }
  );

/** The parts of a formula one step down. */
export function partsOf(formula: Formula): Formula[] {
  switch (formula.kind) {
    case 'number':
    case 'name':
      return [];
    case 'negative':
    case 'derivative':
      return [formula.of];
    case 'call':
      return formula.of;
    default:
      return [formula.left, formula.right];
  }
}

/** Every name that a formula speaks of, in the order in which they stand, each once. */
export function namesIn(formula: Formula): string[] {
  const found = new Set<string>();
  const look = (part: Formula) => {
    if (part.kind === 'name' && !isPi(part.name)) found.add(part.name);
    partsOf(part).forEach(look);
    if (part.kind === 'derivative') found.add(part.by);
  };
  look(formula);
  return [...found];
}

/** Whether a formula differentiates something. */
export const hasDerivative = (formula: Formula): boolean =>
  formula.kind === 'derivative' || partsOf(formula).some(hasDerivative);

/** The same formula with each part one step down replaced. */
export function withParts(formula: Formula, replaced: (part: Formula) => Formula): Formula {
  switch (formula.kind) {
    case 'number':
    case 'name':
      return formula;
    case 'negative':
    case 'derivative':
      return { ...formula, of: replaced(formula.of) };
    case 'call':
      return { ...formula, of: formula.of.map(replaced) };
    default:
      return { ...formula, left: replaced(formula.left), right: replaced(formula.right) };
  }
}
