import { type Run } from '@heuristor/contracts';
import {
  type Column,
  Refusal,
  conversionFactor,
  isTimeUnit,
  parseUnit,
  readColumns,
  ucumCode,
} from '@heuristor/core';
import { Failure } from '../failure';
import { RunModel } from '../models/run';
import { findInvestigation } from './investigations';
import { addRun } from './runs';
import { writeSamples } from './samples';

const second = parseUnit('s');

/**
 * Turns a file of columns into a run. A first column measured in a unit of time, ascending and without missing cells, becomes
 * the time of the run, in seconds; otherwise the readings are numbered from 1.
 * @throws Failure that names row and column of the first wrong cell
 */
export async function importColumns(investigationId: string, text: string, name: string): Promise<Run> {
  const investigation = await findInvestigation(investigationId);
  const columns = parsed(text);
  const count = columns[0].values.length;
  const [first] = columns;
  const timed = columns.length > 1 && isTimeUnit(first.unit);
  let times = Float64Array.from({ length: count }, (_, i) => i + 1);
  if (timed) {
    const factor = conversionFactor(first.unit, second);
    times = first.values.map((value) => value * factor);
    times.forEach((time, i) => {
      if (Number.isNaN(time))
        throw wrongFile(`The time in reading ${i + 1} is missing. Every reading needs its time.`);
      if (i > 0 && time <= times[i - 1])
        throw wrongFile(
          `The time in reading ${i + 1} is not after the one before it. Sort the rows by time.`,
        );
    });
  }
  const interval = regularInterval(times);
  const channels = timed ? columns.slice(1) : columns;
  return RunModel.transaction(async (transaction) => {
    const run = await addRun(
      {
        investigationId,
        name: name.slice(0, 120) || undefined,
        origin: 'imported',
        state: 'ended',
        plan: investigation.plan,
        channels: channels.map((column) => ({
          key: column.name,
          symbol: column.name,
          quantity: column.name,
          unit: ucumCode(column.unit),
          timeUnit: timed ? 's' : '1',
          interval,
          start: times[0],
          low: null,
          high: null,
          deviceCode: null,
          zero: 0,
          reversed: false,
        })),
      },
      transaction,
    );
    for (const [i, { values }] of channels.entries())
      await writeSamples(run.channels[i].id, values, interval === null ? times : null, transaction);
    return run;
  });
}

const wrongFile = (sentence: string) => new Failure('wrong-file', sentence);

function parsed(text: string): Column[] {
  try {
    return readColumns(text);
  } catch (error) {
    if (error instanceof Refusal) throw wrongFile(error.message);
    throw error;
  }
}

/** The spacing of times that are regular to a millionth of it, else null. */
function regularInterval(times: Float64Array): number | null {
  if (times.length < 2) return null;
  const interval = (times[times.length - 1] - times[0]) / (times.length - 1);
  return times.every((time, i) => Math.abs(time - times[0] - i * interval) <= 1e-6 * interval)
    ? interval
    : null;
}
