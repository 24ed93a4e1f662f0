import { type Lab, openLab } from './support/lab';
import { barriersOn } from './support/barriers';
import { until } from './support/system';

// Home: a year of investigations is found again, one begins with a template, and what was removed comes back.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];

beforeAll(async () => {
  lab = await openLab('buoy', { own: true, demo: true });
  ({ system, hand } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const atHome = async () => {
  await system.page.goto(system.site, { waitUntil: 'load' });
  await hand.waitForText('Examples');
};
const names = () =>
  system.page.$$eval('.home-row strong', (all) => all.map(({ textContent }) => textContent ?? ''));
const search = async (text: string) => {
  const field = await hand.element('input[type="search"]');
  await field.click({ clickCount: 3 });
  await system.page.keyboard.press('Backspace');
  await field.type(text);
};
/** What stands under a heading. */
const under = (heading: string) =>
  system.page.$$eval(
    '.home-group',
    (groups, wanted) =>
      groups
        .filter((group) => group.querySelector('h2')?.textContent === wanted)
        .flatMap((group) => [...group.querySelectorAll('.home-row strong')])
        .map(({ textContent }) => textContent ?? ''),
    heading,
  );

test('one press begins an investigation with a template, which is on its sheet once, also after the page is loaded again', async () => {
  await atHome();
  await hand.press('From a template');
  await hand.item('Hooke');
  await hand.waitForText('“Hooke” is on the sheet');
  const cards = () => system.page.$$eval('.result-card', (all) => all.length);
  const before = await until(cards, (count) => count > 0);
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.result-card');
  expect(await cards()).toBe(before);
});

test('an investigation is found by its name, by a quantity that was recorded, and by what was noted of a run', async () => {
  await atHome();
  expect(await barriersOn(system.page)).toEqual([]);
  await search('pressure');
  await until(names, (all) => all.length === 1);
  expect(await names()).toEqual([expect.stringContaining('Harbour stair')]);
  await search('no such thing anywhere');
  await hand.waitForText('No investigation has “no such thing anywhere” in its name, its theme');
  // A note that somebody writes on the bench.
  await hand.openCopy(system.site, 'Ship’s bell');
  const note = await hand.element('input[aria-label^="Note"]');
  await note.type('the axle squeaked');
  await system.page.keyboard.press('Enter');
  await until(
    () =>
      system.page.evaluate(async () => {
        const answer = await fetch('/api/investigations?search=squeaked');
        return ((await answer.json()) as { total: number }).total;
      }),
    (total) => total === 1,
  );
  await atHome();
  await search('squeaked');
  await until(names, (all) => all.length === 1);
  expect(await names()).toEqual([expect.stringContaining('Ship’s bell')]);
});

test('themes are typed, and investigations stand under them or under the day of their last use', async () => {
  await atHome();
  expect(await under('Today')).toEqual(expect.arrayContaining(['Hooke']));
  await hand.menu('More for Hooke', 'Class or theme …');
  await system.page.waitForSelector('input[aria-label="Class or theme"]');
  await system.page.keyboard.type('10b');
  await system.page.keyboard.press('Enter');
  await hand.element('.home-row .theme');
  await hand.press('By class or theme');
  await until(
    () => under('10b'),
    (all) => all.length === 1,
  );
  expect(await under('10b')).toEqual(['Hooke']);
  expect((await under('Without a theme')).length).toBeGreaterThan(0);
  // It is still so for who comes again, and found by its theme.
  await atHome();
  expect(await under('10b')).toEqual(['Hooke']);
  await search('10B');
  await until(names, (all) => all.length === 1);
});

test('what was removed can be put back, also by who comes later', async () => {
  await atHome();
  await hand.menu('More for Hooke', 'Remove');
  await until(names, (all) => !all.includes('Hooke'));
  await system.page.reload({ waitUntil: 'load' });
  await hand.press('Removed in the last 30 days (1)');
  await hand.press('Put back', '.home-removed');
  await until(names, (all) => all.includes('Hooke'));
  await hand.waitForText('“Hooke” is back.');
});
