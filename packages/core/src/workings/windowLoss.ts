import { type Flattening, flatteningIn } from '../calculus/flattening';
import { countOf, timeAt } from '../series/sampling';
import { type FilterStep, type Series, windowedBehind } from '../series/series';
import { type Context, type RegionBounds } from './kind';

/** A loss that is worth a word. */
export const worthSaying = 0.01;

/** What windows behind some series do in a region. */
export interface WindowLoss {
  steps: readonly FilterStep[];
  /** The largest loss among them; null where it cannot be determined. */
  found: Flattening | null;
}

export const polynomialsOf = (all: readonly Series[]): FilterStep[] => {
  const bySymbol = new Map<string, FilterStep>();
  for (const { made } of all)
    for (const step of made)
      if (step.isMedian !== true) bySymbol.set(`${step.symbol}/${step.windowPoints}/${step.order}`, step);
  return [...bySymbol.values()];
};

/** What the windows behind series take off in a region, or in all of the run. */
export function windowLoss(
  all: readonly Series[],
  region: RegionBounds | null,
  advises: boolean,
): WindowLoss {
  const steps = polynomialsOf(all);
  const windowed = windowedBehind(all);
  if (steps.length === 0 || windowed === null) return { steps, found: null };
  const losses: Flattening[] = [];
  for (const series of windowed) {
    const count = countOf(series.sampling);
    if (count === 0) return { steps, found: null };
    const isInTime = region !== null && region.along === 't';
    const start = isInTime ? region.start : timeAt(series.sampling, 0);
    const end = isInTime ? region.end : timeAt(series.sampling, count - 1);
    const own = flatteningIn(series, start, end, advises);
    if (own === null) return { steps, found: null };
    losses.push(own);
  }
  if (losses.length === 0) return { steps, found: null };
  const largest = losses.reduce((one, other) => (other.lost > one.lost ? other : one));
  return {
    steps,
    found: { ...largest, lostRaised: (times) => Math.max(...losses.map((one) => one.lostRaised(times))) },
  };
}

/** "The window of v" or "The windows of v and a". */
export function windowsOf(steps: readonly FilterStep[]): string {
  const symbols = [...new Set(steps.map(({ symbol }) => symbol))];
  return symbols.length === 1 ? `The window of ${symbols[0]}` : `The windows of ${symbols.join(' and ')}`;
}

/** What would take less. */
export function adviceOn({ harmless: find }: Flattening): string {
  const harmless = find();
  return harmless === null
    ? 'Even 3 readings would take more than 1 %: record with a higher rate.'
    : `${harmless} readings would take under 1 %.`;
}

export const shareText = (share: number): string => `${Number((100 * share).toPrecision(2))} %`;

/** What a median takes off, which no share can tell. */
export const medianNotes = (all: readonly Series[]): string[] => {
  const steps = all.flatMap(({ made }) => made.filter(({ isMedian }) => isMedian === true));
  return [
    ...new Set(
      steps.map(
        ({ symbol, windowPoints }) =>
          `The running median of ${symbol} takes off what is narrower than ${(windowPoints + 1) / 2} readings.`,
      ),
    ),
  ];
};

/** Said of a series beside its window: what that takes off in the whole run, where it is more than a hundredth. */
export function lossNote(series: Series, { moving, raised }: Pick<Context, 'moving' | 'raised'>): string[] {
  if (raised > 0) return [];
  const { steps, found } = windowLoss([series], null, !moving);
  if (found === null || found.lost < worthSaying) return [];
  const advice = moving && found.harmless() === null ? [] : [adviceOn(found)];
  const takes = new Set(steps.map(({ symbol }) => symbol)).size === 1 ? 'takes' : 'take';
  return [
    [`${windowsOf(steps)} ${takes} ${shareText(found.lost)} off the motion of this run.`, ...advice].join(
      ' ',
    ),
  ];
}
