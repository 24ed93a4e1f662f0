import { jointFit } from '../../fitting/joint';
import { relationOf } from '../../fitting/relations';
import { type Quantity } from '../../results/quantity';
import { fittedIn } from '../../workings/asked';
import { Evaluator } from '../../workings/evaluate';
import { channelOf } from '../sheet';
import { type TruthCase } from './case';
import { chance, entryOf } from './sheets';

const asQuantity = (value: number, standardUncertainty: number, degreesOfFreedom: number): Quantity => ({
  value,
  unit: [],
  standardUncertainty,
  degreesOfFreedom,
  influences: () => [],
});

/** Runs of one slope, each from another height. */
const line = relationOf('line');
const lines = (count: number, runs: number, noises: readonly number[]): TruthCase => ({
  title: `slope that ${runs} runs of ${count} readings share, noise ${noises.join(' and ')}`,
  expected: 'normal',
  trial(i) {
    const sets = Array.from({ length: runs }, (_, s) => {
      const { normal } = chance(i, s);
      const x = Float64Array.from({ length: count }, (__, k) => k * 0.2);
      return { x, y: x.map((t) => s + 1.4 * t + noises[s % noises.length] * normal()) };
    });
    const found = jointFit(line, sets, [0]);
    const [{ value, standardUncertainty }] = found.parameters[0];
    return { quantity: asQuantity(value, standardUncertainty, found.degreesOfFreedom), truth: 1.4 };
  },
});

/** Parameters that several runs have in common. */
export const jointCases: readonly TruthCase[] = [
  lines(4, 2, [0.05]),
  lines(5, 3, [0.05]),
  lines(40, 3, [0.05]),
  lines(40, 2, [0.03, 0.12]),
  {
    title: 'acceleration that two runs share, through a derivative',
    expected: 'normal',
    trial(i) {
      const entries = [
        entryOf('derivative', 'v', { of: 'channel:x', windowPoints: 9 }),
        entryOf('fit', 'q', {
          of: 'entry:v',
          against: 't',
          relation: 'line',
          weights: 'equal',
          showResiduals: false,
        }),
      ];
      const sets = [0, 1].map((s) => {
        const { normal } = chance(i, s);
        const values = Float64Array.from({ length: 80 }, (_, k) => {
          const t = k * 0.02;
          return 0.3 * s * t + 0.35 * t * t + 0.0005 * normal();
        });
        return fittedIn(
          new Evaluator({ id: `r${s}`, channels: [channelOf('x', 'm', values, 0.02)] }),
          { entries },
          'q',
        ).points;
      });
      const found = jointFit(line, sets, [0]);
      const [{ value, standardUncertainty }] = found.parameters[0];
      return { quantity: asQuantity(value, standardUncertainty, found.degreesOfFreedom), truth: 0.7 };
    },
  },
];
