import { type TrialTable, emptyTrials, knownChannels, usualPlan } from '@heuristor/contracts';
import {
  addRun,
  changeInvestigation,
  createInvestigation,
  findDocument,
  hasInvestigations,
  keepTemplate,
  onlyTeacher,
  readInvestigation,
  writeSamples,
  writeDocument,
} from '@heuristor/server';
import { type Experiment } from './demo/experiment';
import { experiments } from './demo/index';
import { type MotionStudy, buoyStudy, lifeboatStudy, motionOf } from './demo/motionStudies';
import { record } from './demo/record';

/** An experiment with its runs. @returns the id of its investigation */
async function addExperiment({ name, conditions, workings, tables, runs }: Experiment): Promise<string> {
  const id = await createInvestigation(await onlyTeacher(), name, workings);
  await changeInvestigation(id, { plan: { conditions } });
  // Runs fill the rows that are planned.
  await addTables(id, tables);
  for (const run of runs) await record(id, run);
  return id;
}

/** A study of one motion sensor with its runs. */
async function addStudy({ name, workings, tables, runs }: MotionStudy): Promise<void> {
  const id = await createInvestigation(await onlyTeacher(), name);
  for (const run of runs) {
    const { channel, values } = motionOf(run);
    const { channels } = await addRun({
      investigationId: id,
      name: run.name,
      origin: 'recorded',
      state: 'ended',
      plan: { ...usualPlan, end: { kind: 'after', seconds: run.lengthSeconds } },
      channels: [channel],
    });
    await writeSamples(channels[0].id, values, null);
  }
  await writeDocument(await onlyTeacher(), id, 'workings', 1, workings);
  await addTables(id, tables);
}

/** The trials of an investigation begin empty, and are written as if somebody had made them. */
async function addTables(id: string, tables: TrialTable[] = []): Promise<void> {
  if (tables.length === 0) return;
  const owner = await onlyTeacher();
  const { version } = await findDocument(owner, id, 'trials');
  await writeDocument(owner, id, 'trials', version, { format: 1, tables });
}

/** The channels of the runs of an investigation, each once. */
async function channelsOf(id: string) {
  const { runs } = await readInvestigation(await onlyTeacher(), id);
  return knownChannels(runs.flatMap(({ channels }) => channels));
}

/** The investigations of the harbour school of Saltmarsh Quay, simulated by the stand-ins; only into an empty database. */
export async function loadDemoData(): Promise<void> {
  if (await hasInvestigations()) return;
  const made: [Experiment, string][] = [];
  // Those that were used last stand first in the list.
  for (const experiment of [...experiments].reverse())
    made.unshift([experiment, await addExperiment(experiment)]);
  for (const [{ template, conditions, workings, tables = [] }, id] of made)
    await keepTemplate(await onlyTeacher(), {
      ...template,
      conditions,
      workings,
      trials: { ...emptyTrials, tables },
      channels: await channelsOf(id),
    });
  for (const study of [lifeboatStudy, buoyStudy]) await addStudy(study);
}
