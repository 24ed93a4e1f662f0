import { emptyTrials, guideSchema, withoutRuns } from '@heuristor/contracts';
import { Evaluator, conversionBetween, parseUnit } from '@heuristor/core';
import { gravity } from '@heuristor/stand-ins';
import { readFileSync } from 'node:fs';
import { channelsOf, conditionsOf } from '../channelsOf';
import { type Experiment } from '../experiment';
import { experiments } from '../index';

// Guides that ship: that each can be followed with what its runs hold, and that what they say is right is so.

const guideOf = (experiment: Experiment) =>
  experiment.guide({
    name: experiment.template.name,
    channels: [],
    conditions: experiment.conditions,
    workings: withoutRuns(experiment.workings),
    trials: { ...emptyTrials, tables: experiment.tables ?? [] },
  });
const named = experiments.map((experiment) => [experiment.template.name, experiment] as const);
const itemIn = (template: string, id: string) => {
  const [, experiment] = named.find(([name]) => name === template) ?? [];
  const item = experiment && guideOf(experiment).find((one) => one.id === id);
  if (item === undefined) throw new Error(`no ${id} in ${template}`);
  return item;
};

test.each(named)(
  '%s: an expectation, steps that set up and bring the sheet, and questions',
  (_, experiment) => {
    const items = guideSchema.parse({ format: 1, isReleased: false, items: guideOf(experiment) }).items;
    const steps = items.filter((item) => item.kind === 'step');
    expect(items.some((item) => item.kind !== 'step' && item.isBefore)).toBe(true);
    expect(steps.some(({ picture }) => picture !== '')).toBe(true);
    expect(steps.some(({ setting }) => setting.plan !== null)).toBe(true);
    expect(steps.some(({ setting }) => setting.sheet !== null)).toBe(true);
    expect(steps.flatMap(({ checks }) => checks).length).toBeGreaterThan(0);
    expect(items.filter(({ kind }) => kind !== 'step').length).toBeGreaterThanOrEqual(4);
  },
);

test.each(named)('%s: what checks and settings speak of is measured in its runs', (_, experiment) => {
  const keys = new Set(experiment.runs.flatMap((run) => channelsOf(run).map(({ key }) => key)));
  // Spot readings hold the amplitude of what the sensor reads live.
  const live = experiment.runs.some((run) => 'typed' in run) ? ['y', 'B'] : [];
  const known = [...keys, ...live, ''];
  for (const item of guideOf(experiment)) {
    if (item.kind === 'sketch') expect(known).toContain(item.over);
    if (item.kind !== 'step') continue;
    for (const { channel } of [...item.checks, ...item.setting.sensors]) expect(known).toContain(channel);
  }
});

test.each(named)(
  '%s: what is to be linked is on its sheet, and within its tolerance in a run',
  (_, experiment) => {
    const results = experiment.runs.flatMap((run) => {
      const pace = 'typed' in run ? undefined : run.pace;
      const { outcomes } = new Evaluator({
        id: run.name,
        channels: channelsOf(run),
        conditions: conditionsOf(run, experiment),
        pace: pace === undefined ? null : { ...pace, unit: parseUnit(pace.unit) },
      }).evaluate(experiment.workings);
      return [...outcomes.values()].flatMap((outcome) => (outcome.kind === 'results' ? outcome.results : []));
    });
    for (const item of guideOf(experiment)) {
      if (item.kind !== 'result' || item.right === null) continue;
      const { value, tolerance } = item.right;
      const isThere = results.some(({ quantity }) => {
        const to = conversionBetween(quantity.unit, parseUnit(item.unit));
        return to !== null && Math.abs(to.factor * quantity.value + to.offset - value) <= tolerance;
      });
      expect([item.id, isThere]).toEqual([item.id, true]);
    }
  },
);

// What is right, from the numbers of the apparatus by the formulas of any textbook.
const omega0 = 1 / Math.sqrt(0.01 * 470e-9);
test.each<[template: string, item: string, truth: number]>([
  ['Pendulum', 'period', 2 * Math.PI * Math.sqrt(0.6 / gravity) * (1 + (10 * Math.PI) ** 2 / 180 ** 2 / 16)],
  // The first three terms of the series at 60°.
  ['Pendulum', 'growth', 100 * ((Math.PI / 3) ** 2 / 16 + (11 * (Math.PI / 3) ** 4) / 3072)],
  ['Hanging mass', 'g', gravity],
  ['Falling fence', 'g', gravity],
  ['Bounces', 'g', gravity],
  ['Bounces', 'kept', 100 * 0.8 ** 2],
  ['RC', 'tau', 10e3 * 103e-6],
  ['RC', 'share', 100 / Math.E],
  ['Field law', 'power', -3],
  ['Resonance', 'f0', 17.3],
  ['Plucked strip', 'f', 17.3],
  ['Two springs', 'soft', 2 * Math.PI * Math.sqrt(0.5 / 12)],
  ['Two springs', 'stiff', 2 * Math.PI * Math.sqrt(0.5 / 25)],
  ['Coil and capacitor', 'f', Math.sqrt(omega0 ** 2 - 400 ** 2) / (2 * Math.PI)],
  ['Coil and capacitor', 'Q', Math.sqrt(omega0 ** 2 - 400 ** 2) / (2 * 400)],
  ['Lamp and resistor', 'ohm', 22],
  ['Falling magnet', 'flux', (-1000 * 4e-7 * Math.PI * 600 * 0.9) / (2 * 0.015)],
  ['Stair', 'drop', 101_490 * (1 - Math.exp((-gravity * 1.4) / (287.05287 * 292.4)))],
  ['Stair', 'height', 1.4],
  ['Tension', 'held', 0.1 * gravity],
  ['Hooke', 'thin', 24],
  ['Hooke', 'thick', 38],
])(
  '%s: what is right for “%s” is %f within its tolerance, which is no wider than it need be',
  (template, id, truth) => {
    const item = itemIn(template, id);
    if (item.kind !== 'number' && item.kind !== 'result') throw new Error(`${id} asks for no number`);
    if (item.right === null) throw new Error(`nobody says what is right for ${id}`);
    expect(Math.abs(item.right.value - truth)).toBeLessThan(item.right.tolerance / 2);
    expect(item.right.tolerance / Math.abs(truth)).toBeLessThan(0.15);
  },
);

test('the documents list every experiment with its template, and no other', () => {
  const listed = [...readFileSync('docs/experiments.md', 'utf8').matchAll(/^\| [^|]+ \| ([^|]+?) +\|/gm)]
    .map(([, template]) => template)
    .slice(1)
    .filter((template) => !/^-+$/.test(template));
  expect([...listed].sort()).toEqual(named.map(([template]) => template).sort());
});
