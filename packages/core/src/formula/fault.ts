import { Refusal } from '../refusal';

/** What is wrong with a formula, and where: from one place of its text up to another. */
export class FormulaFault extends Refusal {
  constructor(
    message: string,
    readonly from: number,
    readonly to: number,
  ) {
    super(message);
  }
}
