import { FormulaFault } from './fault';
import { parseFormula } from './parse';
import { Program } from './program';
import { type Formula } from './tree';

interface Read {
  formula: Formula;
  program: Program;
}

const mostKept = 400;
const kept = new Map<string, Read | FormulaFault>();

function read(text: string): Read {
  let found = kept.get(text);
  if (found === undefined) {
    try {
      const formula = parseFormula(text);
      found = { formula, program: new Program(formula) };
    } catch (error) {
      if (!(error instanceof FormulaFault)) throw error;
      found = error;
    }
    if (kept.size >= mostKept) kept.clear();
    kept.set(text, found);
  }
  if (found instanceof FormulaFault) throw found;
  return found;
}

/** A formula as a tree; texts that come again and again are read once. @throws FormulaFault */
export const parsed = (text: string): Formula => read(text).formula;

/** A formula made ready to be worked out. @throws FormulaFault */
export const programOf = (text: string): Program => read(text).program;
