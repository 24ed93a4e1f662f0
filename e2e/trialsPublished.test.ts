import norris from '../packages/core/reference/norris.json';
import { addColumn, askOfRuns, paste } from './support/trials';
import { signedIn } from './support/signedIn';
import { barriersOn } from './support/barriers';
import { type BenchHand } from './support/bench';
import { type System, until } from './support/system';

// Published data, pasted into a table of trials: what the page says of them is what was published.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

/** An investigation without runs, whose trials have an empty table over these conditions; a unit stands behind a name. */
async function tableOf(name: string, conditions: readonly (readonly [name: string, unit: string])[]) {
  await system.open('/');
  await hand.type('Name of the new investigation', name);
  await hand.waitForText('No run yet');
  for (const [condition, unit] of conditions) await askOfRuns(hand, condition, unit);
  await hand.press('Trials', 'nav[aria-label="Pages"]');
  await hand.press('Empty table');
  for (const [condition] of conditions) await addColumn(hand, condition);
}

async function relation(called: string) {
  await hand.press('Relation …');
  await hand.element('.modal.show input:focus');
  await system.page.keyboard.type(called);
  await hand.element('.modal.show canvas');
  await system.page.keyboard.press('Enter');
}

/** What stands under the table beside this word, column by column. */
const summary = (word: string) =>
  system.page.$$eval(
    '.trial-summary tbody tr',
    (rows, wanted) =>
      rows
        .filter((row) => row.querySelector('th[scope="row"]')?.textContent === wanted)
        .map((row) => [...row.querySelectorAll('td')].map(({ textContent }) => parseFloat(textContent))),
    word,
  );

// Source: Pearson's points with York's weights (D. York, Can. J. Phys. 44 (1966) 1079), with the line that the literature gives for
// errors in both coordinates: −0.480 533 x + 5.479 910, χ² = 11.866 with 8 degrees of freedom.
test('York’s line: points with errors along both axes', async () => {
  await tableOf('York', [
    ['x', 'm'],
    ['y', 'm'],
  ]);
  const x = [0, 0.9, 1.8, 2.6, 3.3, 4.4, 5.2, 6.1, 6.5, 7.4];
  const y = [5.9, 5.4, 4.4, 4.6, 3.5, 3.7, 2.8, 2.8, 2.4, 1.5];
  const ofX = [1000, 1000, 500, 800, 200, 80, 60, 20, 1.8, 1];
  const ofY = [1, 1.8, 4, 8, 20, 20, 70, 70, 100, 500];
  const rows = x.map((at, i) => [at, 1 / Math.sqrt(ofX[i]), y[i], 1 / Math.sqrt(ofY[i])].join('\t'));
  await paste(system.page, ['x\tu(x)\ty\tu(y)', ...rows].join('\n'));
  await hand.waitForText('10 rows were pasted.');
  await hand.press('Points');
  await relation('line');
  const slope = await hand.result('line through y against x', 'slope');
  const intercept = await hand.result('line through y against x', 'intercept');
  const chiSquared = await hand.result('line through y against x', 'chiSquared');
  expect(slope.value).toBeCloseTo(-0.480533407, 6);
  expect(intercept.value).toBeCloseTo(5.479910224, 5);
  expect(chiSquared.value).toBeCloseTo(11.8663532 / 8, 3);
  // Uncertainties of the line, from the same literature: 0.0580 and 0.295, times the factor of 68 of 100 for few points at the most.
  expect(slope.uncertainty).toBeGreaterThan(0.0575);
  expect(slope.uncertainty).toBeLessThan(0.063);
  expect(intercept.uncertainty).toBeGreaterThan(0.292);
  expect(intercept.uncertainty).toBeLessThan(0.32);
});

// Source: NIST Statistical Reference Datasets (StRD), linear regression, Norris, with its certified values in the reference file.
test('NIST’s Norris as two typed columns', async () => {
  await tableOf('Norris', [
    ['x', 'm'],
    ['y', 'm'],
  ]);
  await paste(system.page, ['x\ty', ...norris.x.map((x, i) => `${x}\t${norris.y[i]}`)].join('\n'));
  await hand.waitForText('36 rows were pasted.');
  await hand.press('Points');
  await relation('line');
  const slope = await hand.result('line through y against x', 'slope');
  const intercept = await hand.result('line through y against x', 'intercept');
  const [b0, b1] = norris.certified.parameters;
  expect(slope.value / b1).toBeCloseTo(1, 9);
  expect(intercept.value / b0).toBeCloseTo(1, 7);
});

// Source: dried weights of plants under a control and two treatments, A. J. Dobson, An Introduction to Statistical Modelling (1983),
// table 2.1, with F and its chance as general-purpose statistics software gives them; from memory, as are the means.
test('three treatments of plants: means, sd, and whether they differ', async () => {
  await tableOf('Plants', [
    ['treatment', ''],
    ['weight', 'g'],
  ]);
  const groups = {
    control: [4.17, 5.58, 5.18, 6.11, 4.5, 4.61, 5.17, 4.53, 5.33, 5.14],
    first: [4.81, 4.17, 4.41, 3.59, 5.87, 3.83, 6.03, 4.89, 4.32, 4.69],
    second: [6.31, 5.12, 5.54, 5.5, 5.37, 5.29, 4.92, 6.15, 5.8, 5.26],
  };
  const rows = Object.entries(groups).flatMap(([name, all]) => all.map((weight) => `${name}\t${weight}`));
  await paste(system.page, ['treatment\tweight', ...rows].join('\n'));
  await hand.waitForText('30 rows were pasted.');
  await until(
    () => summary('n'),
    (all) => all[0]?.[0] === 30,
    10,
  );
  expect((await summary('mean'))[0][0]).toBeCloseTo(5.073, 1);
  expect((await summary('sd'))[0][0]).toBeCloseTo(0.7012, 1);
  await hand.press('Spread');
  await hand.pick('What is drawn', 'weight');
  await hand.pick('What stands under each', 'treatment');
  await hand.waitForText(
    'The means of the 3 groups differ by more than the scatter within them explains: F = 4.85 with 2 and 27 degrees of freedom; chance alone makes as much in one case of 63.',
  );
  expect(await barriersOn(system.page)).toEqual([]);
});

// Source: NIST Statistical Reference Datasets (StRD), univariate, NumAcc1: 10000001, 10000003, 10000002 with mean 10000002 and standard
// deviation 1; from memory.
test('with keys alone: a table, its rows, and their mean on an offset of ten million', async () => {
  const { page } = system;
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key as 'Enter');
  };
  /** Goes on by Tab until what is wanted has the focus. */
  const tabTo = async (wanted: string) => {
    for (let i = 0; i < 120; i++) {
      await press('Tab');
      const here = await page.evaluate(() => {
        const focused = document.activeElement as HTMLElement | null;
        return focused?.getAttribute('aria-label') ?? focused?.innerText.trim() ?? '';
      });
      if (here.startsWith(wanted)) return;
    }
    throw new Error(`Tab does not come to “${wanted}”`);
  };
  await system.open('/');
  await hand.type('Name of the new investigation', 'By keys');
  await hand.waitForText('No run yet');
  await askOfRuns(hand, 'x', 'm');
  await tabTo('Trials');
  await press('Enter');
  await hand.waitForText('No table yet');
  await tabTo('Empty table');
  await press('Enter');
  await hand.element('.trials-foot');
  await tabTo('Column');
  await press('Enter');
  await hand.element('.modal.show input:focus');
  await page.keyboard.type('x');
  await press('Enter');
  await page.waitForSelector('.modal.show', { hidden: true });
  for (const [i, value] of ['10000001', '10000003', '10000002'].entries()) {
    await tabTo('Row');
    await press('Enter');
    await until(
      () => page.$$eval('.trial-grid tbody tr:not([aria-hidden])', ({ length }) => length),
      (count) => count === i + 1,
      10,
    );
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    for (let k = 0; k <= i; k++) await tabTo('x of the typed row');
    await page.keyboard.type(value);
    await press('Enter');
  }
  await until(
    () => summary('n'),
    (all) => all[0]?.[0] === 3,
    10,
  );
  // ± is s/√3 times the factor of two degrees of freedom for 68 of 100, 1.32.
  await hand.waitForText('(1.000000200 ± 0.000000076) × 10⁷');
  expect((await summary('sd'))[0][0]).toBeCloseTo(1, 2);
});
