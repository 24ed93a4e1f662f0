import { Refusal, type StoredEvaluation } from '@heuristor/core';
import { HeldRuns, outcomesOf, readingsOfSpot, type RunReadings } from '@heuristor/evaluation';
import { Model } from 'objection';
import { workerData } from 'piscina';
import { type Knex, connect } from '../connection';
import { allSamples, findChannel } from '../services/samples';
import { type EvaluationTask } from './task';

/** Readings that a thread keeps of runs that it evaluated last: the next question about one of them costs what has changed. */
const mostKept = 5e5;
const mostMilliseconds = 60_000;

const runs = new HeldRuns();
/** What is held, the one that was asked last at the end. */
const held = new Map<string, { state: string; size: number }>();
let database: Knex | null = null;

/** Says what sheets say of a run, on a thread of its own: the thread that records has better things to do. */
export default async function evaluate({
  run,
  state,
  ...question
}: EvaluationTask): Promise<StoredEvaluation | { refused: string }> {
  if (held.get(run.id)?.state !== state) await hold(run, state);
  const evaluator = runs.evaluator(run.id);
  if (evaluator === null) throw new Error('a run that was put is held');
  try {
    return outcomesOf(evaluator, question);
  } catch (error) {
    if (error instanceof Refusal) return { refused: error.message };
    throw error;
  } finally {
    makeRoom(run.id);
  }
}

async function hold(run: EvaluationTask['run'], state: string): Promise<void> {
  letGo(run.id);
  const readings = await readingsOf(run);
  runs.put(run, readings);
  held.set(run.id, { state, size: readings.values.reduce((sum, { length }) => sum + length, 0) });
}

async function readingsOf({ channels, spot }: EvaluationTask['run']): Promise<RunReadings> {
  if (spot !== null) return readingsOfSpot(channels, spot);
  if (database === null) {
    database = connect((workerData as { database: string }).database, 1, mostMilliseconds);
    Model.knex(database);
  }
  const readings: RunReadings = { values: [], times: [] };
  for (const { id, sampling } of channels) {
    const channel = await findChannel(id);
    const values = await allSamples(channel, 'values');
    readings.values.push(values);
    readings.times.push(
      sampling.kind === 'regular' ? null : (await allSamples(channel, 'times')).subarray(0, values.length),
    );
  }
  return readings;
}

/** The runs that were asked longest ago go where there are too many readings. */
function makeRoom(last: string): void {
  const own = held.get(last);
  held.delete(last);
  if (own !== undefined) held.set(last, own);
  let size = [...held.values()].reduce((sum, one) => sum + one.size, 0);
  for (const [id, one] of held) {
    if (size <= mostKept) return;
    size -= one.size;
    letGo(id);
  }
}

function letGo(runId: string): void {
  held.delete(runId);
  runs.drop(runId);
}
