import { type Lab, openLab } from './support/lab';
import { until } from './support/system';

// Large digits, and values beside the traces: what a class of the last row reads while a run goes on.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
let stage: Lab['stage'];

beforeAll(async () => {
  lab = await openLab('cord');
  ({ system, hand, stage } = lab);
  await hand.begin(system.site, 'Seen from the last row', ['C6-F']);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const textOf = (selector: string) =>
  system.page.$$eval(selector, (all) => all.map((one) => (one as HTMLElement).innerText).join(' '));
const pointerAt = async () =>
  Number(
    await (
      await hand.element('[data-tile="live:x"] .dial')
    ).evaluate((dial) => dial.getAttribute('data-turned')),
  );

test('large digits are filled at once; what is chosen stays chosen for this investigation', async () => {
  await system.page.keyboard.press('d');
  await hand.element('.digit-wall');
  expect(await textOf('.digit-name')).toMatch(/^F .*x /s);
  await hand.press('Show');
  await hand.item('F of Force');
  await system.page.keyboard.press('Escape');
  await until(
    () => textOf('.digit-name'),
    (text) => /^x /.test(text),
  );
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.sensor-head');
  await system.page.keyboard.press('d');
  await hand.element('.digit-wall');
  expect(await textOf('.digit-name')).toMatch(/^x /);
});

test('a value stands beside the traces as a pointer, and follows while a run is recorded', async () => {
  await hand.press('Beside the traces');
  await hand.item('x of Force and length sensor');
  await system.page.keyboard.press('Escape');
  await hand.pressLabelled('Close the large digits');
  await hand.pressLabelled('x as a pointer on a scale');
  const before = await until(pointerAt, (share) => Number.isFinite(share));
  await hand.lengthOfRun('20');
  await system.page.keyboard.press('Space');
  await hand.waitForText('Space stops');
  await stage.carry('End of the cord: pull it', 'ArrowRight', 18, 0.8);
  await until(pointerAt, (share) => Math.abs(share - before) > 0.05);
  // The number under it is the one on the card of its sensor.
  await system.page.keyboard.press('Space');
  await hand.waitForText('Run 2 is ready');
  await until(
    () =>
      system.page.$$eval('[data-testid="reading-x"]', (all) =>
        all.map((one) => (one as HTMLElement).innerText.replace(/^x\s*/, '').replace(/\s+/g, ' ').trim()),
      ),
    (texts) => texts.length === 2 && texts[0] === texts[1],
  );
  // The plot has still most of the width.
  const [tiles, traces] = await Promise.all(
    ['.beside-tiles', '.trace'].map(async (one) => (await hand.element(one)).boundingBox()),
  );
  expect((tiles?.width ?? 1e9) * 3).toBeLessThan(traces?.width ?? 0);
});

test('a result and the value at the cursor stand beside it, as on the card and at the cursor; taken away, they are gone', async () => {
  // Its last part, where the cord is stretched.
  const [{ channels }] = await hand.runs();
  const [{ values, sampling }] = channels;
  const end = sampling.start + (values.length - 1) * sampling.interval;
  await hand.mark(0.9 * end, 0.98 * end);
  await hand.offer('x', 'mean');
  const { value } = await hand.result('mean of x', 'mean');
  await system.page.keyboard.press('Escape');
  await system.page.keyboard.press('d');
  await hand.press('Beside the traces');
  await hand.item('mean of x');
  await system.page.keyboard.press('Escape');
  await hand.pressLabelled('Close the large digits');
  const reading = await hand.element('.beside-tile:last-child .reading');
  const shown = (await reading.evaluate((one) => (one as HTMLElement).innerText)).replace(/\s+/g, ' ');
  expect(Math.abs(parseFloat(shown.replace('−', '-')) - value)).toBeLessThan(0.001);
  await hand.pressLabelled('Take x away from beside the traces');
  await until(
    () => system.page.$$('.beside-tile').then((all) => all.length),
    (count) => count === 1,
  );
});
