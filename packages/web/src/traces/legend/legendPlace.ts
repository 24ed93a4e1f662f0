import { type Sight } from '../../workers/protocol';
import { ofAxis, shareOf } from '../axes/axisScale';
import { axisOf } from '../cursor/cursorWords';
import { type DrawnTrace } from '../drawn';

/** Where a legend stands, in shares of the room that is left beside it: 0 and 0 are its upper left corner. */
export interface LegendPlace {
  x: number;
  y: number;
}

/** The quantities of a trace in words, where it shows several; each with the place that its colour goes by. */
export function legendRows({
  quantities,
}: Pick<DrawnTrace, 'quantities'>): { text: string; place: number }[] {
  if (quantities.length < 2) return [];
  return quantities.map(({ symbol, quantity }, place) => ({
    text: quantity === '' || quantity === symbol ? symbol : `${symbol} ${quantity}`,
    place,
  }));
}

const corners: readonly LegendPlace[] = [
  { x: 1, y: 0 },
  { x: 0, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];
/** So much of a plot a legend may take, in width and height. */
const [wide, high] = [0.3, 0.4];

/** The corner of a plot in which the fewest points lie, where a legend hides least. */
export function emptiestCorner(trace: DrawnTrace, sight: Sight): LegendPlace {
  const counts = corners.map(() => 0);
  for (const { x, y, side } of [...trace.lines, ...trace.curves]) {
    const axis = axisOf(trace, side);
    const ends = axis === null ? null : ofAxis(axis);
    // Of very many points a part tells where they lie.
    const step = Math.max(1, Math.floor(x.length / 500));
    for (let i = 0; ends !== null && i < x.length; i += step) {
      const across = shareOf(x[i], sight);
      const down = 1 - shareOf(y[i], ends);
      corners.forEach((corner, k) => {
        const isBeside = corner.x === 1 ? across > 1 - wide : across < wide;
        const isWithin = across >= 0 && across <= 1 && down >= 0 && down <= 1;
        if (isWithin && isBeside && (corner.y === 1 ? down > 1 - high : down < high)) counts[k]++;
      });
    }
  }
  return corners[counts.indexOf(Math.min(...counts))];
}
