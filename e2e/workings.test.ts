import { join } from 'node:path';
import { normalRandom } from '@heuristor/core';
import boxbod from '../packages/core/reference/boxbod.json';
import rat42 from '../packages/core/reference/rat42.json';
import { signedIn } from './support/signedIn';
import { barriersOn } from './support/barriers';
import { atRest } from './support/atRest';
import { type BenchHand } from './support/bench';
import { type System } from './support/system';

// From runs to a number: formulas, constants, relations chosen by sight and typed, with runs whose truth is known.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const bring = (name: string, text: string) =>
  hand.bring(join(system.downloads, '..', `${name}.csv`), text, name);
const begin = async (name: string) => {
  await system.open('/');
  await hand.type('Name of the new investigation', name);
  await hand.waitForText('No run yet');
};
const workOut = async (item: string) => {
  await hand.press('Work out');
  await hand.item(item);
};
/** Types a formula into the one field that is open for one. */
const typeFormula = async (text: string) => {
  const field = await hand.element('input[aria-label="Formula"]');
  await field.click({ count: 3 });
  await system.page.keyboard.type(text);
};

const [acceleration, noise, mass] = [0.62, 0.0003, 0.5];
const cartRun = (seed: number, pull: number) => {
  const random = normalRandom(seed);
  const rows = Array.from({ length: 120 }, (_, i) => {
    const t = i * 0.02;
    return `${t.toFixed(2)},${(0.1 + (pull * t * t) / 2 + noise * random()).toFixed(6)}`;
  });
  return `t (s),x (m)\n${rows.join('\n')}\n`;
};

test('kinetic energy is typed as a physicist writes it; a name that is missing becomes a constant', async () => {
  await begin('Cart');
  await bring('slow', cartRun(1, acceleration));
  await bring('fast', cartRun(2, 2 * acceleration));
  await workOut('Derivative of x');
  await workOut('Series by a formula');
  await typeFormula('K = 1/2 m v^2 + x');
  await hand.waitForText('Nothing here is called m yet.');
  await hand.press('Make m a constant');
  await hand.type('Value of m', String(mass));
  await hand.type('Uncertainty of m', '0.01');
  await hand.type('Unit of m', 'kg');
  await hand.waitForText('“1/2 m v^2” is in J, but “x” is in m; they cannot be added.');
  expect(await system.page.$eval('.formula-marked mark', (mark) => mark.textContent)).toBe('1/2 m v^2 + x');
  await typeFormula('K = 1/2 m v^2');
  await hand.waitForText('in J');
  await system.page.keyboard.press('Enter');
  // Typeset as in a book, with its meaning for those who hear it.
  await hand.element('[data-kind="formulaSeries"] .sentence .katex .mfrac');
  await hand.mark(0.4, 2.2, 2);
  await hand.type('Start of region A', '0.39');
  await hand.type('End of region A', '2.21');
  await hand.offer('K', 'mean');
  const values = await hand.allResults('mean of K', 'mean');
  [1, 2].forEach((times, i) => {
    let truth = 0;
    let count = 0;
    for (let k = 20; k <= 110; k++, count++) truth += 0.5 * mass * (times * acceleration * k * 0.02) ** 2;
    // The mass is known to 2 %, and that is nearly all.
    expect(values[i].uncertainty / values[i].value).toBeGreaterThan(0.019);
    expect(values[i].uncertainty / values[i].value).toBeLessThan(0.0215);
    expect(Math.abs(values[i].value - truth / count) / (truth / count)).toBeLessThan(0.005);
  });
});

test('a constant slides within its uncertainty, everything follows, and it goes back', async () => {
  const before = await hand.result('mean of K', 'mean');
  const slider = await hand.element('input[aria-label="Slide m"]');
  await slider.focus();
  await system.page.keyboard.press('End');
  await hand.waitForText('Changed by the slider');
  const slid = await hand.result('mean of K', 'mean');
  expect(slid.value / before.value).toBeCloseTo(0.52 / 0.5, 4);
  await hand.press('back');
  await system.page.waitForFunction(() => !document.body.innerText.includes('Changed by the slider'));
  expect((await hand.result('mean of K', 'mean')).value).toBeCloseTo(before.value, 9);
});

test('formulas follow a renaming; what is used says by whom when it is removed', async () => {
  await hand.menu('More for m', 'Rename');
  await hand.rename('cart mass');
  await hand.element('[aria-label="1/2 {cart mass} v^2"]');
  await hand.menu('More for cart mass', 'Remove');
  await hand.waitForText('“cart mass” was used by “K”, which cannot be worked out without it.');
  await hand.press('Put it back');
  await hand.result('mean of K', 'mean');
});

test('a result by a formula shows its working, its budget, and its value in every run', async () => {
  await workOut('Result by a formula');
  await typeFormula('v_end = sqrt(2 {mean of K} / {cart mass})');
  await system.page.keyboard.press('Enter');
  // The mean was never given a name; it is known by its sentence.
  const label = 'sqrt(2 {mean of K} / {cart mass})';
  const { value, uncertainty } = await hand.result(label, 'value');
  const mean = await hand.result('mean of K', 'mean');
  expect(value).toBeCloseTo(Math.sqrt((2 * mean.value) / mass), 9);
  // The mass has gone out of it again: K is proportional to it.
  expect(uncertainty / value).toBeLessThan(0.001);
  await (await hand.element(`[aria-label="${label}"] .card-value .btn-number`)).click();
  await hand.element('[aria-label="How v_end is worked out"] .katex');
  await hand.element('[aria-label="v_end in every run"] canvas');
  const shown = await hand.shownText(label);
  expect(shown).toContain('mean of 2 runs');
  expect(shown).toContain('readings of x');
  expect(await barriersOn(system.page)).toEqual([]);
});

test('notes, a copy: and all of it is there after a reload', async () => {
  await hand.menu('More for v_end', 'Add a note');
  await hand.element('textarea:focus');
  await system.page.keyboard.type('at the end of the track');
  await system.page.$eval('textarea', (field) => (field as HTMLElement).blur());
  await hand.menu('More for K', 'Duplicate');
  await hand.element('[aria-label="More for K2"]');
  await hand.menu('More for K2', 'Remove');
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('[data-kind="formulaSeries"] .sentence .katex');
  const label = 'sqrt(2 {mean of K} / {cart mass})';
  await hand.result(label, 'value');
  expect(await hand.shownText(label)).toContain('at the end of the track');
  // What was done before the reload is taken back after it.
  await hand.pressLabelled('Undo');
  await hand.element('[aria-label="More for K2"]');
});

test('relations are chosen by sight: the right one stands first, and one is taken with a click', async () => {
  const random = normalRandom(9);
  await begin('Flash circuit');
  const rows = Array.from(
    { length: 150 },
    (_, i) => `${(i * 0.05).toFixed(2)},${(4.5 * Math.exp(-i * 0.05 * 0.6) + 0.02 * random()).toFixed(5)}`,
  );
  await bring('discharge', `t (s),U (V)\n${rows.join('\n')}\n`);
  await hand.mark(0, 7.4);
  await hand.relationsBySight();
  await hand.element('[data-relation]');
  const order = await system.page.$$eval('[data-relation]', (all) =>
    all.map((one) => one.getAttribute('data-relation')),
  );
  expect(order.slice(0, 2).sort()).toEqual(['approach', 'decay']);
  expect(await barriersOn(system.page)).toEqual([]);
  await (await hand.element('.palette-ask input')).click();
  await system.page.keyboard.type('decay');
  await atRest(system.page);
  await system.page.keyboard.press('Enter');
  const { value, uncertainty } = await hand.result('exponential decay through U', 'timeConstant');
  expect(Math.abs(value - 1 / 0.6)).toBeLessThan(4 * uncertainty);
  const halfLife = await hand.result('exponential decay through U', 'halfLife');
  expect(halfLife.value / value).toBeCloseTo(Math.LN2, 9);
  await hand.menu('More for exponential decay through U', 'Choose another relation');
  await (await hand.element('[data-relation="approach"]')).click();
  await hand.result('exponential approach through U', 'finalValue');
});

test('a formula is fitted as it is typed; a parameter is held', async () => {
  await workOut('Relation through U');
  await hand.element('[data-relation]');
  await (await hand.element('.palette-ask input')).click();
  await system.page.keyboard.type('U0 exp(-t/tau)');
  await hand.press('Fit this formula');
  const label = 'U = U0 exp(-t/tau)';
  const { value, uncertainty } = await hand.result(label, 'tau');
  expect(Math.abs(value - 1 / 0.6)).toBeLessThan(4 * uncertainty);
  await (await hand.element('input[aria-label="Hold U0"]')).click();
  await system.page.waitForFunction(
    (wanted: string) => document.querySelector(`[aria-label="${wanted}"] [data-result="U0"]`) === null,
    {},
    label,
  );
  await hand.result(label, 'tau');
});

const digits = (value: number, certified: number) =>
  -Math.log10(Math.abs(value - certified) / Math.abs(certified) || 1e-16);

// Source of data and certified values: NIST Statistical Reference Datasets (StRD), nonlinear regression.
test.each([
  { set: boxbod, text: 'b1 (1 - exp(-b2 x))' },
  { set: rat42, text: 'b1 / (1 + exp(b2 - b3 x))' },
])(
  '$set.name: the certified parameters come out of a typed formula, to 6 digits',
  async ({ set, text }) => {
    await begin(set.name);
    await bring(set.name, `x;y\n${set.x.map((x, i) => `${x};${set.y[i]}`).join('\n')}\n`);
    await hand.horizontal('x');
    await workOut('Relation through y');
    await (await hand.element('.palette-ask input')).click();
    await system.page.keyboard.type(text);
    await hand.press('Fit this formula');
    for (const [i, certified] of set.certified.parameters.entries()) {
      const { value } = await hand.result(`y = ${text} against x`, `b${i + 1}`);
      expect(digits(value, certified)).toBeGreaterThan(6);
    }
  },
  60_000,
);

test('headings and text stand between the entries', async () => {
  await workOut('Heading');
  await hand.element('textarea[aria-label="Text on the sheet"]:focus');
  await system.page.keyboard.type('Growth of a turnip');
  await system.page.keyboard.press('Enter');
  await hand.element('h3.sheet-heading');
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  expect(await (await hand.element('h3.sheet-heading')).evaluate((heading) => heading.textContent)).toBe(
    'Growth of a turnip',
  );
});
