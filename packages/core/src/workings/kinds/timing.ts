import { Refusal } from '../../refusal';
import { type LeftOutPass, mergedEdges } from '../../timing/edges';
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
  length?: { of: ResultRef; called: string };
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
    notes: leftOutNote(found.leftOut),
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
function lengthOf({ of, called }: { of: ResultRef; called: string }, context: Context) {
  const { quantity } = context.result(of);
  if (!canConvert(quantity.unit, metre))
    throw new Refusal(
      `${called} is in ${quantity.unit.length === 0 ? 'plain numbers' : printedUnit(quantity.unit)}. Give it in a unit of length, such as mm.`,
    );
  const factor = conversionFactor(quantity.unit, metre);
  if (!(quantity.value > 0)) throw new Refusal(`${called} is ${quantity.value}. It has to be more than 0.`);
  return {
    value: factor * quantity.value,
    influences: quantity.influences().map(({ root, label, effect: { weights } }) => ({
      root,
      label,
      effect: factor * (weights.length === 1 ? weights[0] : Math.hypot(...weights)),
    })),
  };
}

function leftOutNote(leftOut: readonly LeftOutPass[]): string[] {
  if (leftOut.length === 0) return [];
  const reasons = new Map<string, number>();
  for (const { reason } of leftOut) reasons.set(reason, (reasons.get(reason) ?? 0) + 1);
  const told = [...reasons].map(([reason, count]) => (count === 1 ? reason : `${reason} (${count} times)`));
  const passes = leftOut.length === 1 ? 'One pass is' : `${leftOut.length} passes are`;
  return [`${passes} left out: ${told.join('; ')}.`];
}
