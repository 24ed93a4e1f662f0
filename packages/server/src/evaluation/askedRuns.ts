import { type Plan, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { dependenciesOn } from '@heuristor/core';
import { conditionsOf } from '@heuristor/evaluation';
import { createHash } from 'node:crypto';
import { lengthsOf } from '../services/samples';
import { type Made } from './keptEvaluations';
import { programThatEvaluates } from './program';
import { type EvaluationTask } from './task';

/** A sheet, and whose it is. */
export interface OwnedSheet {
  owner: string;
  workings: WorkingsDocument;
}

/** A run that is asked about, and what decides what is said of it. */
export interface Asked {
  made: Made;
  task: EvaluationTask;
}

/** What sheets are asked about runs, and what decides the answers. */
export async function askedAbout(
  runs: readonly Run[],
  plan: Pick<Plan, 'conditions'>,
  sheets: readonly OwnedSheet[],
): Promise<Asked[]> {
  const states = await statesOf(runs);
  const owners = sheets.length === 1 ? sheets[0].owner : hashOf(sheets.map(({ owner }) => owner).join());
  const dependencies = sheets.map(({ workings }) => dependenciesOn(workings));
  return runs.map((run, i) => {
    const conditions = conditionsOf(run, plan);
    return {
      made: {
        runId: run.id,
        owners,
        made: hashOf(`${programThatEvaluates()}${states[i]}${JSON.stringify(conditions)}`),
        keys: dependencies.map((of) => hashed(of(run.id))),
      },
      task: { run, state: states[i], conditions, sheets: sheets.map(({ workings }) => workings) },
    };
  });
}

/** What of each run decides what is worked out from it: also one that has ended may be fetched on from a device. */
export async function statesOf(runs: readonly Run[]): Promise<string[]> {
  const recorded = runs.filter(({ spot }) => spot === null).flatMap(({ channels }) => channels);
  const lengths = await lengthsOf(recorded.map(({ id }) => id));
  const byId = new Map(recorded.map(({ id }, i) => [id, lengths[i]]));
  return runs.map(({ id, channels, spot, plan }) =>
    JSON.stringify([
      id,
      channels,
      spot === null ? channels.map((channel) => byId.get(channel.id)) : [spot.rows, spot.columns],
      plan?.way === 'pace' ? plan.pace : null,
    ]),
  );
}

const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');

const hashed = (texts: ReadonlyMap<string, string>): Record<string, string> =>
  Object.fromEntries([...texts].map(([id, text]) => [id, hashOf(text)]));
