import { type Pace } from '../../pace/target';
import { Refusal } from '../../refusal';
import { type Series } from '../../series/series';
import { canConvert } from '../../units/conversion';
import { type Context } from '../kind';
import { type SeriesRef, channelRef } from '../references';

/** The line that this run was to follow with a series. @throws Refusal where there was none, or with something else */
export function paceFor(of: SeriesRef, series: Series, { pace }: Context): Pace {
  if (pace === null) throw new Refusal('This run was to follow no line.');
  const isOther = pace.of === 'reading' && of !== channelRef(pace.quantity);
  if (isOther || !canConvert(pace.unit, series.unit))
    throw new Refusal(
      `This run was to follow a line of ${pace.of === 'speed' ? `the speed of ${pace.quantity}` : pace.quantity}, not of ${series.symbol}.`,
    );
  return pace;
}
