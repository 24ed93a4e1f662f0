import { type WorkingsDocument, usualPlan } from '@heuristor/contracts';
import { type Entry, uniformRandom } from '@heuristor/core';
import {
  addRun,
  createInvestigation,
  hasInvestigations,
  writeSamples,
  writeWorkings,
} from '@heuristor/server';
import {
  type Apparatus,
  Buoy,
  Lifeboat,
  MotionSensor,
  SampledApparatus,
  motionChannel,
} from '@heuristor/stand-ins';

const rate = 50;

interface DemoRun {
  name: string;
  apparatus: Apparatus;
  deviceCode: string;
  zero: number;
  /** Seconds from letting go to the start of the recording; negative to begin before. */
  delay: number;
  lengthSeconds: number;
}

function simulate({ apparatus, zero, delay, lengthSeconds }: DemoRun, seed: number): Float64Array {
  const rig = new SampledApparatus(apparatus, new MotionSensor(uniformRandom(seed)));
  const letGo = Math.max(-delay, 0);
  const first = Math.max(delay, 0);
  let held = true;
  return Float64Array.from({ length: lengthSeconds * rate + 1 }, (_, i) => {
    const moment = first + i / rate;
    if (held && moment >= letGo) {
      rig.advanceTo(letGo);
      apparatus.control({ action: 'release' });
      held = false;
    }
    return rig.readAt(moment) - zero;
  });
}

async function addDemoRun(investigationId: string, run: DemoRun, seed: number): Promise<void> {
  const values = simulate(run, seed);
  const { channels } = await addRun({
    investigationId,
    name: run.name,
    origin: 'recorded',
    state: 'ended',
    plan: { ...usualPlan, lengthSeconds: run.lengthSeconds },
    channels: [
      {
        key: 'x',
        symbol: 'x',
        quantity: 'position',
        unit: 'm',
        timeUnit: 's',
        sampling: { kind: 'regular', start: 0, interval: 1 / rate },
        low: motionChannel.range.low - run.zero,
        high: motionChannel.range.high - run.zero,
        noise: motionChannel.noise,
        deviceCode: run.deviceCode,
        zero: run.zero,
        reversed: false,
      },
    ],
  });
  await writeSamples(channels[0].id, values, null);
}

function buoyOn(stiffness: number, pull: number): Buoy {
  const buoy = new Buoy();
  buoy.control({ action: 'set', key: 'stiffness', value: stiffness });
  buoy.control({ action: 'grab', at: -pull });
  return buoy;
}

function lifeboatAt(angle: number): Lifeboat {
  const boat = new Lifeboat();
  boat.control({ action: 'set', key: 'angle', value: angle });
  boat.control({ action: 'grab', at: 0.3 });
  return boat;
}

const sheet = (entries: Entry[], traces: WorkingsDocument['traces']): WorkingsDocument => ({
  format: 2,
  entries,
  horizontal: 't',
  traces,
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

/** Two investigations of the harbour school of Saltmarsh Quay, simulated by the stand-ins; only into an empty database. */
export async function loadDemoData(): Promise<void> {
  if (await hasInvestigations()) return;
  const lifeboat = await createInvestigation('Lifeboat on the slipway: three tilts');
  const tilts = [4, 6, 8];
  for (const [i, angle] of tilts.entries())
    await addDemoRun(
      lifeboat,
      {
        name: `${angle}° tilt`,
        apparatus: lifeboatAt(angle),
        deviceCode: 'K3-L',
        zero: 0.3,
        delay: -0.5,
        lengthSeconds: 3,
      },
      40 + i,
    );
  await writeWorkings(lifeboat, 1, lifeboatWorkings);

  const buoy = await createInvestigation('Channel buoy: soft and stiff spring');
  const swings = [
    { name: 'soft', stiffness: 14, pull: 0.04, delay: 0.3 },
    { name: 'soft again', stiffness: 14, pull: 0.025, delay: 0.8 },
    { name: 'stiff', stiffness: 22.2, pull: 0.03, delay: 0.5 },
  ];
  for (const [i, { name, stiffness, pull, delay }] of swings.entries())
    await addDemoRun(
      buoy,
      {
        name,
        apparatus: buoyOn(stiffness, pull),
        deviceCode: 'K7-D',
        zero: Buoy.restDistance,
        delay,
        lengthSeconds: 8,
      },
      70 + i,
    );
  await writeWorkings(buoy, 1, buoyWorkings);
}
