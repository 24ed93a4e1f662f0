import { type Lab, openLab } from './support/lab';

// A sensor with two quantities, of which one rests and the other is not to be touched.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];

beforeAll(async () => {
  lab = await openLab('cord', { own: true });
  ({ system, hand } = lab);
  await hand.begin(system.site, 'Zero by channel', ['C6-F']);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const card = async () =>
  (await hand.element('.card-sheet[aria-label$="C6-F"]')).evaluate((one) => (one as HTMLElement).innerText);

test('one channel is zeroed alone; what was zeroed, when, and how still it was, stands on the card', async () => {
  await hand.menu('What is zeroed of C6-F', 'Zero F alone, now');
  await hand.waitForText('F zeroed less than a minute ago, still within');
  expect(await card()).toMatch(/F zeroed less than a minute ago, still within [\d.]+ N/);
  expect(await card()).not.toContain('x zeroed');
});

test('what Zero takes is chosen once, and is still chosen after the page is loaded again', async () => {
  await hand.menu('What is zeroed of C6-F', 'F force');
  await system.page.keyboard.press('Escape');
  await hand.press('Zero x');
  await hand.waitForText('x zeroed less than a minute ago');
  await system.page.reload({ waitUntil: 'load' });
  await hand.press('Zero x');
});
