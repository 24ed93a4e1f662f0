import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type FormulaText } from '../workings/fields';
import { type Outcome } from '../workings/outcome';
import { type RunData } from '../workings/run';
import { channelOf, constantEntry } from './sheet';

// Sheets with formulas over a cart that runs down a slope.

export const interval = 0.02;
export const channel = (key: string, unit: string, values: Float64Array, step = interval) =>
  channelOf(key, unit, values, step);
export const made = (n: number, value: (t: number) => number, step = interval) =>
  Float64Array.from({ length: n }, (_, i) => value(i * step));

export const formula = (text: string, names: FormulaText['names'] = {}): FormulaText => ({ text, names });
export const constant = (name: string, value: number, uncertainty: number, unit: string) =>
  constantEntry(name, value, uncertainty, unit, `c-${name}`);
export const series = (
  name: string,
  text: string,
  more: { unit?: string; names?: FormulaText['names'] } = {},
): Entry => ({
  kind: 'formulaSeries',
  id: `s-${name}`,
  name,
  formula: formula(text, more.names),
  unit: more.unit ?? '',
  windowPoints: 9,
});
export const result = (name: string, text: string, unit = '', names: FormulaText['names'] = {}): Entry => ({
  kind: 'calculation',
  id: `r-${name}`,
  name,
  formula: formula(text, names),
  unit,
});
export const region: Entry = {
  kind: 'region',
  id: 'A',
  name: '',
  letter: 'A',
  along: 't',
  start: 0.2,
  end: 1.6,
};
export const velocity: Entry = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
export const mean = (of: `entry:${string}` | 'channel:x', name = ''): Entry => ({
  kind: 'statistics',
  id: `mean ${of}`,
  name,
  of,
  region: 'A',
});

export const outcomeIn = (entries: Entry[], run: RunData, id: string) =>
  evaluate({ entries }, run).outcomes.get(id);
export const seriesIn = (outcome: Outcome | undefined) => {
  if (outcome?.kind !== 'series') throw new Error(JSON.stringify(outcome));
  return outcome.series;
};
export const quantityIn = (outcome: Outcome | undefined) => {
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome.results[0].quantity;
};
export const refusalIn = (outcome: Outcome | undefined) =>
  outcome?.kind === 'refused' ? outcome : undefined;

export const acceleration = 0.62;
export const cart: RunData = {
  id: 'r',
  channels: [
    channel(
      'x',
      'm',
      made(100, (t) => (acceleration * t * t) / 2),
    ),
  ],
};
export const constants = [
  constant('m', 0.512, 0.001, 'kg'),
  constant('g', 9.81, 0.01, 'm/s2'),
  constant('x0', 1.6, 0.005, 'm'),
  constant('θ', 3.6, 0.05, 'deg'),
];
