import { type TrialColumn } from '@heuristor/contracts';
import { gravity, trolley } from '@heuristor/stand-ins';
import {
  type Experiment,
  columnRef,
  constant,
  entry,
  folded,
  formula,
  pointsTable,
  resultColumn,
  runColumn,
  sheet,
} from './experiment';
import { hangingMassGuide } from './guides/hangingMass';
import { type DemoRun } from './record';

const acceleration = resultColumn('path', 'curvature', 'a', 'm.s-2');
const hanging: TrialColumn = {
  kind: 'condition',
  key: 'c-M',
  condition: 'M',
  name: '',
  unit: '',
  hidden: false,
};

/** In kilograms, and as a balance with a step of a tenth of a gram tells them. */
export const masses = [0.02003, 0.03998, 0.06001, 0.07996, 0.10003];
const weighed = masses.map((mass) => ({ value: Number(mass.toFixed(4)), u: 0.00003 }));

export const hangingMass: Experiment = {
  name: 'Lifeboat: hauled by a weight',
  template: {
    name: 'Hanging mass',
    about: 'acceleration against the mass that hangs, with one mass moved in all runs, and g from the line',
  },
  conditions: [{ key: 'M', name: 'M', kind: 'number', unit: 'kg' }],
  workings: sheet(
    [
      entry('region', 'hauled', 'hauled', {
        letter: 'A',
        start: 0.3,
        end: 1.2,
        from: { event: 'rises', of: 'channel:x', level: 0.02, count: 1, offset: 0 },
        until: { event: 'rises', of: 'channel:x', level: 0.58, count: 1, offset: 0 },
        toldIn: { 'channel:x': 'm' },
      }),
      entry('fit', 'path', 'a', {
        relation: 'parabola',
        of: 'channel:x',
        against: 't',
        region: 'hauled',
        showResiduals: true,
      }),
    ],
    // A motion sensor is enough.
    ['channel:x'],
  ),
  tables: [
    {
      ...pointsTable('a against M', [runColumn('name'), hanging, acceleration], acceleration, hanging, [
        entry('fit', 'line', 'line', {
          of: columnRef(acceleration),
          against: columnRef(hanging),
          relation: 'line',
          weights: 'own',
        }),
        folded(constant('moved', 'm', 0.5, 0.0005, 'kg', 'balance: boat and all weights together')),
        entry('calculation', 'g', 'g', {
          formula: formula('s m + a_0', {
            s: 'result:line/slope',
            m: 'result:moved/value',
            a_0: 'result:line/intercept',
          }),
          unit: 'm/s^2',
          note: 'Friction takes µ g (m − M)/m off every acceleration. That makes the slope (1 + µ) g/m and the value at M = 0 −µ g, so that both together give g.',
        }),
        folded(constant('standard-g', 'g_n', gravity, 0, 'm.s-2', 'standard gravity, ISO 80000-3')),
        entry('comparison', 'compared', '', { first: 'result:g/value', second: 'result:standard-g/value' }),
      ]),
      planned: weighed.map((mass, i) => ({ id: `planned-${i + 1}`, conditions: { M: mass } })),
    },
  ],
  guide: hangingMassGuide,
  runs: masses.map((mass, i): DemoRun => ({
    name: `${Math.round(1000 * mass)} g`,
    rig: trolley,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'hanging', value: mass });
          apparatus.control({ action: 'do', key: 'back' });
        },
      ],
      [0.5, () => apparatus.control({ action: 'release' })],
    ],
    streams: [{ code: 'K5-C', stream: 'cart', rate: 100, seconds: 2.6, from: 0.2, zero: { F: 0.06 } }],
    seed: 340 + i,
  })),
};
