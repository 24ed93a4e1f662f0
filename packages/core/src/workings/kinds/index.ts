import { type LineKind, type NameOf } from '../kind';
import { type Context } from '../context';
import { type Line } from '../lines';
import { type Outcome } from '../outcome';
import { area } from './area';
import { derivative } from './derivative';
import { fit } from './fit';
import { integral } from './integral';
import { region } from './region';
import { slope } from './slope';
import { statistics } from './statistics';

/** Every kind of line there is. */
const kinds: { [K in Line['kind']]: LineKind<Extract<Line, { kind: K }>> } = {
  region,
  derivative,
  integral,
  statistics,
  slope,
  area,
  fit,
};

// A line and its kind carry the same discriminant, which the type system cannot follow through the look-up.
const kindOf = (line: Line) => kinds[line.kind] as LineKind<Line>;

/** What a line works out. @throws Refusal */
export const evaluateLine = (line: Line, context: Context): Outcome => kindOf(line).evaluate(line, context);

/** A line as a sentence, without its region's letter. */
export const lineSentence = (line: Line, nameOf: NameOf): string => kindOf(line).sentence(line, nameOf);
