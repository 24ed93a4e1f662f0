import { type Rig, rail } from '@heuristor/stand-ins';
import {
  type Experiment,
  columnRef,
  constant,
  entry,
  formula,
  logarithmic,
  pointsTable,
  sheet,
  valueColumn,
} from './experiment';
import { fieldLawGuide } from './guides/fieldLaw';

/** How far the sensing point lies behind the tip of the probe, and the field without the magnet. */
const behindTip = 0.012;
const surroundings = 0.019;
const distances = [0.03, 0.035, 0.04, 0.05, 0.06, 0.07, 0.08, 0.1, 0.12, 0.14, 0.17, 0.2];

const field = valueColumn('channel:B', 'c-B');
const distance = valueColumn('channel:d', 'c-d');

export const fieldLaw: Experiment = {
  name: 'Hatch magnet: field against distance',
  template: {
    name: 'Field law',
    about: 'which power of the distance a field falls with, by several relations',
  },
  conditions: [],
  workings: sheet(
    [
      entry('fit', 'cube', 'inverse cube', {
        relation: 'inverseCube',
        of: 'channel:B',
        against: 'channel:d',
        region: null,
        weights: 'own',
        showResiduals: true,
      }),
      entry('fit', 'square', 'inverse square', {
        relation: 'inverseSquare',
        of: 'channel:B',
        against: 'channel:d',
        region: null,
        weights: 'own',
        showResiduals: true,
      }),
      entry('formulaFit', 'shifted', 'inverse cube, place of the probe unknown', {
        of: 'channel:B',
        against: 'channel:d',
        region: null,
        weights: 'own',
        formula: formula('k / (d + d_0)^3', { d: 'channel:d' }),
      }),
      entry('fit', 'power', 'any power', {
        relation: 'power',
        of: 'channel:B',
        against: 'channel:d',
        region: null,
        weights: 'own',
      }),
    ],
    ['channel:B'],
    'channel:d',
  ),
  tables: [
    {
      ...logarithmic(
        pointsTable('B against d', [distance, field], field, distance, [
          entry('fit', 'table-power', 'any power', {
            relation: 'power',
            of: columnRef(field),
            against: columnRef(distance),
            weights: 'own',
          }),
          constant('minus-three', 'of a dipole', -3, 0, '', 'far from a magnet, along its axis'),
          entry('comparison', 'compared', '', {
            first: 'result:table-power/exponent',
            second: 'result:minus-three/value',
          }),
        ]),
      ),
      rows: { kind: 'values', of: 'channel:B' },
    },
  ],
  guide: fieldLawGuide,
  runs: [
    {
      name: 'along the rail',
      typed: {
        key: 'd',
        name: 'distance',
        unit: 'm',
        values: distances.map((tip) => Number((tip + behindTip).toFixed(4))),
      },
      rig: rail,
      code: 'F7-B',
      stream: 'field',
      rate: 20,
      acts: ({ apparatus }: Rig, value: number) => [
        [0, () => apparatus.control({ action: 'set', key: 'distance', value: value - behindTip })],
      ],
      from: 0.2,
      channel: 'B',
      take: 'mean',
      zero: surroundings,
      seed: 280,
    },
  ],
};
