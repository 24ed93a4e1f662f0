import { type DrawnLine, type DrawnQuantity } from '../drawn';
import { type StyleOfRun } from '../chartSetup';
import { type LineLabel } from '../layers';

/** Labels stand so far along their lines, as a share of what is drawn, so that they do not cover each other. */
const first = 0.12;
const apart = 0.09;

/** The symbol of each quantity beside its line of the run in front, where a trace holds several. */
export function lineLabelsOf(
  lines: readonly DrawnLine[],
  quantities: readonly DrawnQuantity[],
  styles: ReadonlyMap<string, StyleOfRun>,
): LineLabel[] {
  if (quantities.length < 2) return [];
  const places = [...new Set(lines.map(({ place }) => place))].sort((a, b) => a - b);
  return places.flatMap((place, i): LineLabel[] => {
    const own = lines.filter((line) => line.place === place && line.x.length > 0);
    const line = own.find(({ runId }) => styles.get(runId)?.front === true) ?? own[0];
    const text = quantities[i]?.symbol;
    if (line === undefined || text === undefined) return [];
    const wanted = Math.floor((first + apart * i) * line.x.length);
    // A missing reading has no place.
    const at = line.y.findIndex((value, index) => index >= wanted && !Number.isNaN(value));
    return at < 0 ? [] : [{ text, side: line.side, x: line.x[at], y: line.y[at] }];
  });
}
