import {
  type NewTemplate,
  type TrialTable,
  emptyGuide,
  emptyTrials,
  knownChannels,
  trialsWithoutRuns,
  usualPlan,
  withoutRuns,
} from '@heuristor/contracts';
import {
  addRun,
  changeInvestigation,
  createInvestigation,
  findDocument,
  hasInvestigations,
  keepTemplate,
  markAsExample,
  onlyTeacher,
  readInvestigation,
  writeSamples,
  writeDocument,
} from '@heuristor/server';
import { type Experiment } from './demo/experiment';
import { experiments } from './demo/index';
import { type MotionStudy, buoyStudy, lifeboatStudy, motionOf } from './demo/motionStudies';
import { record } from './demo/record';

/** An experiment with its runs, and what leads through it. @returns it as a template */
async function addExperiment(experiment: Experiment): Promise<NewTemplate> {
  const { name, template, conditions, workings, tables = [], runs } = experiment;
  const id = await createInvestigation(await onlyTeacher(), name, workings);
  await markAsExample(id);
  await changeInvestigation(id, { plan: { conditions } });
  // Runs fill the rows that are planned.
  await addTables(id, tables);
  for (const run of runs) await record(id, run);
  const sheet = {
    name: template.name,
    channels: await channelsOf(id),
    conditions,
    workings: withoutRuns(workings),
    trials: trialsWithoutRuns({ ...emptyTrials, tables }),
  };
  const guide = { ...emptyGuide, items: experiment.guide(sheet) };
  const owner = await onlyTeacher();
  const { version } = await findDocument(owner, id, 'guide');
  await writeDocument(owner, id, 'guide', version, guide);
  return { ...sheet, ...template, guide };
}

/** A study of one motion sensor with its runs. */
async function addStudy({ name, workings, tables, runs }: MotionStudy): Promise<void> {
  const id = await createInvestigation(await onlyTeacher(), name);
  await markAsExample(id);
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
  const templates: NewTemplate[] = [];
  // Those that were used last stand first in the list.
  for (const experiment of [...experiments].reverse()) templates.unshift(await addExperiment(experiment));
  for (const template of templates) await keepTemplate(await onlyTeacher(), template);
  for (const study of [lifeboatStudy, buoyStudy]) await addStudy(study);
}
