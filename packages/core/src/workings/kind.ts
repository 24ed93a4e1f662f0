import { type Context } from './context';
import { type Line, type SeriesRef } from './lines';
import { type Outcome } from './outcome';

/** How a reference is called in sentences: "x", "v", "t". */
export type NameOf = (reference: SeriesRef) => string;

/** A kind of line. Adding one: its type among the lines, a file with such an object, and its line in the registry. */
export interface LineKind<L extends Line> {
  kind: L['kind'];
  /** The line as a sentence, without the letter of its region: "sine through x". */
  sentence(line: L, nameOf: NameOf): string;
  /** @throws Refusal */
  evaluate(line: L, context: Context): Outcome;
}
