import { beacon } from '@heuristor/stand-ins';
import {
  type Experiment,
  barsTable,
  constant,
  entry,
  folded,
  formula,
  resultColumn,
  runColumn,
  sheet,
} from './experiment';
import { capacitorGuide } from './guides/capacitor';
import { type DemoRun } from './record';

const falls = (level: number) => ({ event: 'falls', of: 'channel:U', level, count: 1, offset: 0 }) as const;

const discharge = runColumn('name');
const byCurve = resultColumn('decay', 'timeConstant', 'τ', 's');

export const capacitor: Experiment = {
  name: 'Beacon: how long its flash lasts',
  template: {
    name: 'RC',
    about: 'time constant of a discharge, by the curve and by ln U, against R · C within their tolerances',
  },
  conditions: [],
  workings: sheet(
    [
      folded(
        constant(
          'R',
          'R',
          10,
          0.289,
          'kOhm',
          'colour code brown black orange gold: 5 %, taken as evenly spread',
        ),
      ),
      folded(constant('C', 'C', 100, 5.77, 'uF', 'printed on it: 10 %, taken as evenly spread')),
      entry('region', 'falling', 'discharge', {
        letter: 'A',
        start: 2,
        end: 5,
        from: falls(4.5),
        until: falls(0.25),
        toldIn: { 'channel:U': 'V' },
      }),
      entry('fit', 'decay', 'τ', { relation: 'decay', of: 'channel:U', against: 't', region: 'falling' }),
      entry('formulaSeries', 'log', 'ln U', {
        formula: formula('ln(U / 1 [V])', { U: 'channel:U' }),
        unit: '',
      }),
      entry('slope', 'straight', 'slope of ln U', { of: 'entry:log', against: 't', region: 'falling' }),
      entry('calculation', 'by-log', 'τ_ln', {
        formula: formula('-1 / s', { s: 'result:straight/slope' }),
        unit: 's',
      }),
      entry('calculation', 'product', 'RC', {
        formula: formula('R C', { R: 'result:R/value', C: 'result:C/value' }),
        unit: 's',
      }),
      entry('comparison', 'compared', '', {
        first: 'result:decay/timeConstant',
        second: 'result:product/value',
      }),
    ],
    ['channel:U', 'entry:log'],
  ),
  tables: [
    barsTable(
      'τ of each discharge',
      [
        discharge,
        byCurve,
        resultColumn('by-log', 'value', 'by ln U', 's'),
        resultColumn('product', 'value', 'RC', 's'),
      ],
      byCurve,
      discharge,
    ),
  ],
  guide: capacitorGuide,
  runs: [10, 9.7].map((resistance, i): DemoRun => ({
    name: i === 0 ? 'flash' : 'another resistor',
    rig: beacon,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'resistance', value: resistance });
          apparatus.control({ action: 'set', key: 'capacitance', value: 103 });
          apparatus.control({ action: 'do', key: 'switch' });
        },
      ],
      [8, () => apparatus.control({ action: 'do', key: 'switch' })],
    ],
    streams: [{ code: 'V1-B', stream: 'circuit', rate: 100, seconds: 6, from: 7.5 }],
    seed: 220 + i,
  })),
};
