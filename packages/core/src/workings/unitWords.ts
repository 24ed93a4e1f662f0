import { parseUnit, printedUnit } from '../units/unit';
import { type EntryBase } from './kind';
import { type SeriesRef } from './references';

/** The unit in which an entry tells numbers of a series, as it stands behind one: " m"; nothing where it says none. */
export function unitWords(toldIn: EntryBase['toldIn'], of: SeriesRef): string {
  const code = toldIn?.[of];
  const printed = code === undefined ? '' : printedUnit(parseUnit(code));
  return printed === '' ? '' : ` ${printed}`;
}
