import { addColumn, askOfRuns } from './support/trials';
import { type Lab, openLab } from './support/lab';
import { until } from './support/system';

// Runs that are planned before anybody records them: the recorder names the next one, and the run fills it.

let lab: Lab;
beforeAll(async () => {
  lab = await openLab('buoy');
});
afterEach(() => expect(lab.system.faults).toEqual([]));
afterAll(() => lab.system.close());

const link = (title: string) => lab.hand.press(title, 'nav[aria-label="Pages"]');
const rowsSaid = () =>
  lab.system.page.$$eval('.trial-grid tbody tr:not([aria-hidden])', (rows) =>
    rows.map((row) =>
      [
        row.querySelector('.row-name')?.textContent.trim(),
        ...[...row.querySelectorAll('td')].map(
          (cell) => cell.querySelector('input')?.value ?? cell.textContent.trim(),
        ),
      ].join(' | '),
    ),
  );
const rowsAre = (...wanted: string[]) => until(rowsSaid, (said) => said.join('\n') === wanted.join('\n'), 10);
const field = (label: string) =>
  lab.system.page.$eval(`input[aria-label="${label}"]`, (one) => (one as HTMLInputElement).value);

test('two loads and two springs are planned, recorded in any order, and a run that is taken out leaves its row open', async () => {
  const { hand, system } = lab;
  await hand.begin(system.site, 'Planned', ['K7-D']);
  await hand.lengthOfRun('0.3');
  await askOfRuns(hand, 'load', 'kg');
  await askOfRuns(hand, 'spring', '');
  await link('Trials');
  await hand.press('Empty table');
  await hand.press('Plan …');
  const type = async (label: string, text: string) => {
    const box = await hand.element(
      `::-p-xpath(//*[contains(@class,"modal-body")]//label[starts-with(normalize-space(),"${label}")]/following::input[1])`,
    );
    await box.click({ count: 3 });
    await system.page.keyboard.type(text);
  };
  await type('load', '0.5; heavy');
  await hand.waitForText('“heavy” is no number');
  await type('load', '0.5; 1 ± 0.001');
  await type('spring', 'soft; stiff');
  await hand.press('Plan 4 runs');
  await rowsAre(
    'next | 0.5 | soft',
    'planned | 0.5 | stiff',
    'planned | 1 ± 0.001 | soft',
    'planned | 1 ± 0.001 | stiff',
  );
  await hand.waitForText('0 rows, 4 planned');
  // A cell of a planned row is typed as any other.
  await hand.type('load of load 0.5 kg, stiff', '0.6');
  await link('Bench');
  await hand.waitForText('Next: load 0.5 kg, soft');
  await hand.record();
  await hand.waitForText('Next: load 0.6 kg, stiff');
  expect([await field('load of run 1'), await field('spring of run 1')]).toEqual(['0.5', 'soft']);
  await hand.press('Next: load 0.6 kg, stiff');
  await hand.item('load 1 ± 0.001 kg, stiff');
  await hand.waitForText('Next: load 1 ± 0.001 kg, stiff');
  await hand.record();
  expect([await field('load of run 2'), await field('spring of run 2')]).toEqual(['1 ± 0.001', 'stiff']);
  await hand.waitForText('Next: load 0.6 kg, stiff');
  await link('Trials');
  const filled = [
    '1 run 1 | 0.5 | soft',
    '2 run 2 | 1 ± 0.001 | stiff',
    'next | 0.6 | stiff',
    'planned | 1 ± 0.001 | soft',
  ];
  await rowsAre(...filled);
  await hand.menu('What to do with run 2, run 2', 'Take it out of the plan');
  // The row that had been chosen is open again, and comes next.
  const open = [
    '1 run 1 | 0.5 | soft',
    '2 run 2 | 1 ± 0.001 | stiff',
    'planned | 0.6 | stiff',
    'planned | 1 ± 0.001 | soft',
    'next | 1 ± 0.001 | stiff',
  ];
  await rowsAre(...open);
  await hand.menu('What to do with load 0.6 kg, stiff', '2 · run 2');
  await rowsAre(
    '1 run 1 | 0.5 | soft',
    '2 run 2 | 0.6 | stiff',
    'planned | 1 ± 0.001 | soft',
    'next | 1 ± 0.001 | stiff',
  );
  await hand.pressLabelled('Undo');
  await rowsAre(...open);
});

test('a run that is removed is recorded again, practice fills nothing, and what is filled stays after a reload', async () => {
  const { hand, system } = lab;
  await link('Bench');
  await hand.nextIsReady();
  await hand.menu('More for run 1', 'Remove');
  await link('Trials');
  await until(rowsSaid, (said) => said.length === 5 && said[1] === 'planned | 0.5 | soft', 10);
  await system.page.reload({ waitUntil: 'load' });
  await until(rowsSaid, (said) => said.length === 5 && said[4] === 'next | 1 ± 0.001 | stiff', 10);
  await link('Bench');
  await hand.press('Next: load 1 ± 0.001 kg, stiff');
  await hand.item('Nothing planned');
  await hand.waitForText('Next: nothing planned');
  await hand.record();
  await link('Trials');
  await hand.waitForText('2 rows, 4 planned');
});

test('runs of another investigation are taken in with their conditions, and taken back', async () => {
  const { hand, system } = lab;
  await system.open('/');
  await hand.type('Name of the new investigation', 'Another class');
  await hand.waitForText('No run yet');
  await link('Trials');
  await hand.press('Empty table');
  await hand.press('Take in …');
  await system.page.keyboard.type('Planned');
  await (await hand.element('.take-item')).click();
  await hand.waitForText('2 · run 2 (load 1 ± 0.001, spring stiff)');
  await (await hand.element('#take-all')).click();
  await hand.press('Take in 2 runs');
  await hand.waitForText('2 runs of another investigation are here now');
  await hand.waitForText('2 rows');
  await addColumn(hand, 'load');
  await until(rowsSaid, (said) => said.join() === '1 run 2 | 1 ± 0.001,2 run 3 | 1 ± 0.001', 10);
  // It was said where they come from.
  const notes = await system.page.evaluate(async () => {
    const answer = await fetch(`/api${location.pathname.replace(/\/trials$/, '')}`);
    return ((await answer.json()) as { runs: { remark: string }[] }).runs.map(({ remark }) => remark);
  });
  expect(notes).toEqual(['from “Planned”, run 2', 'from “Planned”, run 3']);
  await hand.pressLabelled('Undo');
  await hand.pressLabelled('Undo');
  await hand.waitForText('0 rows');
});
