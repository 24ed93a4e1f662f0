import {
  type WorkingsDocument,
  channelOf,
  emptyPage,
  emptyWorkings,
  panelOf,
  usualPlan,
} from '@heuristor/contracts';
import { type Entry, type SeriesRef } from '@heuristor/core';
import {
  addRun,
  changeInvestigation,
  createInvestigation,
  hasInvestigations,
  keepTemplate,
  readInvestigation,
  writeSamples,
  writeWorkings,
} from '@heuristor/server';
import {
  type Rig,
  buoy,
  buoyRest,
  lifeboat,
  motionLimits,
  motionNoise,
  simulate,
} from '@heuristor/stand-ins';

import { experiments } from './demo/index';
import { type Experiment } from './demo/experiment';
import { record } from './demo/record';

const rate = 50;

interface DemoRun {
  name: string;
  rig: Rig;
  deviceCode: string;
  zero: number;
  /** Seconds from letting go to the start of the recording; negative to begin before. */
  delay: number;
  lengthSeconds: number;
}

async function addDemoRun(investigationId: string, run: DemoRun, seed: number): Promise<void> {
  const { rig, deviceCode, zero, delay, lengthSeconds } = run;
  const { values } = simulate(
    rig,
    {
      code: deviceCode,
      stream: 'motion',
      rate,
      count: lengthSeconds * rate + 1,
      from: Math.max(delay, 0),
      seed,
    },
    [[Math.max(-delay, 0), () => rig.apparatus.control({ action: 'release' })]],
  );
  const { channels } = await addRun({
    investigationId,
    name: run.name,
    origin: 'recorded',
    state: 'ended',
    plan: { ...usualPlan, end: { kind: 'after', seconds: lengthSeconds } },
    channels: [
      channelOf({
        key: 'x',
        quantity: 'position',
        unit: 'm',
        timeUnit: 's',
        sampling: { kind: 'regular', start: 0, interval: 1 / rate },
        low: motionLimits.low - zero,
        high: motionLimits.high - zero,
        noise: motionNoise,
        deviceCode,
        applied: {
          scale: 1,
          offset: -zero,
          range: 'range1',
          zero: { offset: zero, spread: motionNoise, at: new Date().toISOString() },
          twoPoint: null,
          reversed: false,
          zeroedAtStart: false,
          numbers: {},
        },
      }),
    ],
  });
  await writeSamples(
    channels[0].id,
    values.map((value) => value - zero),
    null,
  );
}

function buoyOn(stiffness: number, pull: number): Rig {
  const rig = buoy();
  rig.apparatus.control({ action: 'set', key: 'stiffness', value: stiffness });
  rig.apparatus.control({ action: 'set', key: 'amplitude', value: pull });
  rig.apparatus.control({ action: 'do', key: 'pull' });
  return rig;
}

function lifeboatAt(angle: number): Rig {
  const rig = lifeboat();
  rig.apparatus.control({ action: 'set', key: 'angle', value: angle });
  rig.apparatus.control({ action: 'do', key: 'top' });
  return rig;
}

const sheet = (entries: Entry[], traces: SeriesRef[]): WorkingsDocument => ({
  ...emptyWorkings,
  entries,
  pages: [{ ...emptyPage, panels: traces.map(panelOf) }],
});

const buoyWorkings = sheet(
  [
    { kind: 'region', id: 'region-a', name: 'steady swing', letter: 'A', along: 't', start: 1.2, end: 6.8 },
    {
      kind: 'fit',
      id: 'swing',
      name: 'the swing',
      region: 'region-a',
      of: 'channel:x',
      against: 't',
      relation: 'sine',
      showResiduals: false,
      weights: 'equal',
    },
    { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 },
    { kind: 'derivative', id: 'a', name: 'a', of: 'entry:v', windowPoints: 9 },
    {
      kind: 'slope',
      id: 'minus-omega',
      name: 'minus ω²',
      region: 'region-a',
      of: 'entry:a',
      against: 'channel:x',
    },
  ],
  ['channel:x', 'entry:v', 'entry:a'],
);

const lifeboatWorkings = sheet(
  [
    { kind: 'region', id: 'region-a', name: 'running down', letter: 'A', along: 't', start: 0.7, end: 1.9 },
    {
      kind: 'fit',
      id: 'path',
      name: 'the path',
      region: 'region-a',
      of: 'channel:x',
      against: 't',
      relation: 'parabola',
      showResiduals: false,
      weights: 'equal',
    },
    { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 },
    {
      kind: 'slope',
      id: 'acceleration',
      name: 'acceleration from v',
      region: 'region-a',
      of: 'entry:v',
      against: 't',
    },
    {
      kind: 'area',
      id: 'distance',
      name: 'distance from v',
      region: 'region-a',
      of: 'entry:v',
      against: 't',
    },
  ],
  ['channel:x', 'entry:v'],
);

/** An experiment with its runs. @returns the id of its investigation */
async function addExperiment({ name, conditions, workings, runs }: Experiment): Promise<string> {
  const id = await createInvestigation(name, workings);
  await changeInvestigation(id, { plan: { conditions } });
  for (const run of runs) await record(id, run);
  return id;
}

/** The channels of the runs of an investigation, each once. */
async function channelsOf(id: string) {
  const { runs } = await readInvestigation(id);
  const known = new Map(runs.flatMap(({ channels }) => channels).map((channel) => [channel.key, channel]));
  return [...known.values()].map(({ key, quantity, unit }) => ({ key, quantity, unit }));
}

/** The investigations of the harbour school of Saltmarsh Quay, simulated by the stand-ins; only into an empty database. */
export async function loadDemoData(): Promise<void> {
  if (await hasInvestigations()) return;
  const made: [Experiment, string][] = [];
  // Those that were used last stand first in the list.
  for (const experiment of [...experiments].reverse())
    made.unshift([experiment, await addExperiment(experiment)]);
  for (const [{ template, conditions, workings }, id] of made)
    await keepTemplate({ ...template, conditions, workings, channels: await channelsOf(id) });
  const slipway = await createInvestigation('Lifeboat on the slipway: three tilts');
  const tilts = [4, 6, 8];
  for (const [i, angle] of tilts.entries())
    await addDemoRun(
      slipway,
      {
        name: `${angle}° tilt`,
        rig: lifeboatAt(angle),
        deviceCode: 'K3-L',
        zero: 0.3,
        delay: -0.5,
        lengthSeconds: 3,
      },
      40 + i,
    );
  await writeWorkings(slipway, 1, lifeboatWorkings);

  const springs = await createInvestigation('Channel buoy: soft and stiff spring');
  const swings = [
    { name: 'soft', stiffness: 14, pull: 0.04, delay: 0.3 },
    { name: 'soft again', stiffness: 14, pull: 0.025, delay: 0.8 },
    { name: 'stiff', stiffness: 22.2, pull: 0.03, delay: 0.5 },
  ];
  for (const [i, { name, stiffness, pull, delay }] of swings.entries())
    await addDemoRun(
      springs,
      {
        name,
        rig: buoyOn(stiffness, pull),
        deviceCode: 'K7-D',
        zero: buoyRest,
        delay,
        lengthSeconds: 8,
      },
      70 + i,
    );
  await writeWorkings(springs, 1, buoyWorkings);
}
