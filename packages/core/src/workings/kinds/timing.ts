import { Refusal } from '../../refusal';
import { type LeftOutPass, mergedEdges } from '../../timing/edges';
import { chordShare } from '../../timing/offCentre';
import { type EdgesOf, type Timed } from '../../timing/passage';
import { timedSeries } from '../../timing/timedSeries';
import { canConvert, conversionFactor } from '../../units/conversion';
import { type Unit, parseUnit, printedUnit } from '../../units/unit';
import { type Context } from '../kind';
import { type Outcome } from '../outcome';
import { type ResultRef, type SeriesRef } from '../references';
import { summaryOfRepeats } from './statistics';

interface TimedEntry {
  name: string;
  /** The beams whose edges take part. */
  beams: readonly SeriesRef[];
  quantity: string;
  /** Unit of the values. */
  unit: Unit;
  /** The typed length, where there is one. */
  length?: { of: ResultRef; called: string; offCentre?: number };
  work(edges: EdgesOf): Timed;
}

/** Everything that is timed with a length is in metres. */
export const metre = parseUnit('m');
export const second = parseUnit('s');

/** What the passes through a gate say: a series of the passes, with those that are no measurement told apart. @throws Refusal */
export function timedOutcome(
  { name, beams, quantity, unit, length, work }: TimedEntry,
  context: Context,
): Outcome {
  const channels = beams.map((reference) => beamOf(reference, context));
  const [{ series }] = channels;
  const edges = mergedEdges(channels.map(({ sampling }) => sampling));
  const typed = length === undefined ? null : lengthOf(length, context);
  const found = work({
    edges,
    length: typed?.value ?? 1,
    second: conversionFactor(second, series.timeUnit),
  });
  const resolutions = channels.map(({ sampling }) => sampling.resolution);
  const made = timedSeries(found, {
    symbol: name,
    quantity,
    unit,
    timeUnit: series.timeUnit,
    key: `${context.runId}/${beams.join('+')}/edges`,
    label: `timer of ${channels.map((channel) => channel.series.symbol).join(' and ')}`,
    edges: Float64Array.from(edges, ({ time }) => time),
    resolution: resolutions.includes(undefined) ? null : Math.max(...resolutions.map(Number)),
    length: typed?.influences ?? [],
  });
  return {
    kind: 'series',
    series: made,
    notes: [...leftOutNote(found.leftOut), ...(typed?.notes ?? [])],
    passes: {
      leftOut: found.leftOut,
      ...summaryOfRepeats(made),
    },
  };
}

function beamOf(reference: SeriesRef, context: Context) {
  const series = context.series(reference);
  if (series.sampling.kind !== 'events')
    throw new Refusal(`${series.symbol} is not a beam of a gate. Choose one that is.`);
  return { series, sampling: series.sampling };
}

/** A typed length in metres, with what it is uncertain by. */
function lengthOf({ of, called, offCentre = 0 }: NonNullable<TimedEntry['length']>, context: Context) {
  const { quantity } = context.result(of);
  if (!canConvert(quantity.unit, metre))
    throw new Refusal(
      `${called} is in ${quantity.unit.length === 0 ? 'plain numbers' : printedUnit(quantity.unit)}. Give it in a unit of length, such as mm.`,
    );
  const factor = conversionFactor(quantity.unit, metre);
  if (quantity.value === 0)
    throw new Refusal(`${called} is asked for: measure it, and type it in the line above the traces.`);
  if (!(quantity.value > 0)) throw new Refusal(`${called} is ${quantity.value}. It has to be more than 0.`);
  const whole = factor * quantity.value;
  const { share, influences, notes } = allowanceFor(offCentre, whole, context);
  return {
    value: share * whole,
    influences: [
      ...quantity.influences().map(({ root, label, effect: { weights } }) => ({
        root,
        label,
        effect: share * factor * (weights.length === 1 ? weights[0] : Math.hypot(...weights)),
      })),
      ...influences,
    ],
    notes,
  };
}

/** What a ball that may miss the middle of the beam makes of its diameter. @throws Refusal where it would miss the beam */
function allowanceFor(millimetres: number, diameter: number, context: Context) {
  if (millimetres <= 0) return { share: 1, influences: [], notes: [] };
  const most = millimetres / 1000 / diameter;
  if (most >= 0.5)
    throw new Refusal(
      `A ball that passes ${millimetres} mm off the middle misses the beam. The allowance has to be less than ${Number((500 * diameter).toPrecision(4))} mm, half of its diameter.`,
    );
  const { mean, standardDeviation } = chordShare(most);
  const percent = (share: number) => `${Number((100 * share).toPrecision(2))} %`;
  return {
    share: mean,
    influences: [
      {
        root: `${context.runId}/off the middle`,
        label: 'how far off the middle it passes',
        effect: standardDeviation * diameter,
      },
    ],
    notes: [
      `A ball that passes up to ${millimetres} mm off the middle blocks the beam with a chord that is ${percent(1 - mean)} shorter than its diameter in the mean. That is taken off the length; ${percent(standardDeviation)} of it stand in ±.`,
    ],
  };
}

function leftOutNote(leftOut: readonly LeftOutPass[]): string[] {
  if (leftOut.length === 0) return [];
  const reasons = new Map<string, number>();
  for (const { reason } of leftOut) reasons.set(reason, (reasons.get(reason) ?? 0) + 1);
  const counted = [...reasons].map(([reason, count]) =>
    count === 1 ? reason : `${reason} (${count} times)`,
  );
  const passes = leftOut.length === 1 ? 'One pass is' : `${leftOut.length} passes are`;
  return [`${passes} left out: ${counted.join('; ')}.`];
}
