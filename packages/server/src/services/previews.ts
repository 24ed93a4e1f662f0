import {
  type Channel,
  type Preview,
  type Spot,
  type SpotColumn,
  numberIn,
  sortedRows,
} from '@heuristor/contracts';
import { conversionBetween, parseUnit } from '@heuristor/core';
import { RunModel } from '../models/run';
import { presentRun } from './present';
import { allSamples } from './samples';
import { screened } from './screened';

const points = 48;
/** Longer runs get their small picture from their first readings; reading all for a thumbnail is not worth it. */
const mostReadings = 2_000_000;

/** The small picture of a run: its first channel, least and greatest value of each of a few parts. */
export function previewOf(values: Float64Array): Preview {
  const count = Math.min(values.length, mostReadings);
  const x: number[] = [];
  const y: (number | null)[] = [];
  for (let bucket = 0; bucket < points; bucket++) {
    const from = Math.floor((bucket * count) / points);
    const to = Math.max(Math.floor(((bucket + 1) * count) / points), from + 1);
    let low = Infinity;
    let high = -Infinity;
    for (let i = from; i < Math.min(to, count); i++) {
      if (values[i] < low) low = values[i];
      if (values[i] > high) high = values[i];
    }
    const found = low <= high;
    const ends = found ? (bucket % 2 === 0 ? [low, high] : [high, low]) : [null];
    for (const [k, value] of ends.entries()) {
      x.push((bucket + k / 2) / points);
      y.push(value);
    }
  }
  return { x, y };
}

/** The small picture of spot readings: what was measured first against what was typed first. */
function previewOfSpots(spot: Spot, channels: readonly Pick<Channel, 'key' | 'unit'>[]): Preview {
  const rows = sortedRows(spot);
  const across = spot.columns.find(({ kind }) => kind === 'typed');
  const up =
    spot.columns.find(({ kind }) => kind === 'measured') ??
    spot.columns.find((column) => column.kind === 'typed' && column !== across);
  const numbers = (column: SpotColumn | undefined) =>
    rows.map((row, i) => (column === undefined ? i : numberIn(column, row)));
  const [places, values] = [numbers(across), numbers(up)];
  const known = rows.map((_, i) => i).filter((i) => Number.isFinite(places[i]) && Number.isFinite(values[i]));
  const low = Math.min(...known.map((i) => places[i]));
  const reach = Math.max(...known.map((i) => places[i])) - low || 1;
  const unit = channels.find(({ key }) => key === up?.key)?.unit;
  return {
    x: known.map((i) => (places[i] - low) / reach),
    y: known.map((i) => values[i]),
    ...(unit === undefined ? {} : { unit }),
  };
}

/**
 * Small pictures over one scale: in the unit of the newest run; what measures something else would say nothing there, and is left
 * out.
 */
export function inOneUnit<P extends Preview>(previews: readonly P[]): P[] {
  const unit = previews.at(-1)?.unit;
  if (unit === undefined) return [...previews];
  return previews.flatMap((preview) => {
    const conversion =
      preview.unit === undefined
        ? { factor: 1, offset: 0 }
        : conversionBetween(parseUnit(preview.unit), parseUnit(unit));
    if (conversion === null) return [];
    const { factor, offset } = conversion;
    return [
      { ...preview, unit, y: preview.y.map((value) => (value === null ? null : factor * value + offset)) },
    ];
  });
}

/** Makes the small picture of a run that has none, and keeps it. */
export async function makePreview(runId: string): Promise<Preview | null> {
  const run = await RunModel.query().findById(runId).withGraphFetched('[channels, spots]');
  const channel = run?.channels?.sort((a, b) => a.position - b.position)[0];
  if (run === undefined || channel === undefined) return null;
  const { spot, channels } = presentRun(run);
  const preview =
    spot !== null
      ? previewOfSpots(spot, channels)
      : {
          ...previewOf(screened(channel, await allSamples(channel, 'values', mostReadings)).good),
          unit: channel.unit,
        };
  await RunModel.query().findById(runId).patch({ preview });
  return preview;
}
