import { pow } from '../elementary';
import { type Formula } from './tree';

/** The value of a part of plain numbers; null where it speaks of something, or of units. */
export function plainValue(formula: Formula): number | null {
  switch (formula.kind) {
    case 'number':
      return formula.unit === null ? formula.value : null;
    case 'negative': {
      const of = plainValue(formula.of);
      return of === null ? null : -of;
    }
    case 'name':
    case 'call':
    case 'derivative':
      return null;
    default: {
      const [a, b] = [plainValue(formula.left), plainValue(formula.right)];
      if (a === null || b === null) return null;
      return {
        sum: () => a + b,
        difference: () => a - b,
        product: () => a * b,
        quotient: () => a / b,
        power: () => pow(a, b),
      }[formula.kind]();
    }
  }
}
