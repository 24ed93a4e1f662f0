import { readFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { atRest } from './support/atRest';
import { barriersOn } from './support/barriers';
import { toNotebook } from './support/notebook';
import { type Lab, openLab } from './support/lab';
import { downloaded, until } from './support/system';

// A system that asks for a dark screen, or for more contrast, gets it at once, in letters and in curves; what is kept, sent and
// printed is light all the same.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];

beforeAll(async () => {
  lab = await openLab('buoy');
  ({ system, hand } = lab);
  await hand.openCopy(system.site, 'Channel buoy');
  await hand.element('.card-value .btn-number');
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const asks = (scheme: 'dark' | 'light') =>
  system.page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }]);

/** How light most of a picture is, from 0 to 255. */
function ground(png: Buffer): number {
  const { data } = PNG.sync.read(png);
  const lights = Array.from({ length: data.length / 4 }, (_, i) => data[4 * i + 1]).sort((a, b) => a - b);
  return lights[lights.length >> 1];
}
const seenGround = async (selector: string) =>
  ground(Buffer.from(await (await hand.element(selector)).screenshot()));
const plot = '.trace';

test('the bench turns dark with the system, curves and all, and light again, without being loaded anew', async () => {
  const light = await seenGround(plot);
  expect(light).toBeGreaterThan(200);
  await asks('dark');
  await until(
    () => seenGround(plot),
    (now) => now < 60,
  );
  expect(await seenGround('.side-column, .groups')).toBeLessThan(60);
  await atRest(system.page);
  // Every letter can be told from its ground.
  expect(await barriersOn(system.page)).toEqual([]);
  await asks('light');
  await until(
    () => seenGround(plot),
    (now) => now > 200,
  );
});

test('pictures that are saved or pinned on a dark screen are light, and so is print', async () => {
  await asks('dark');
  await until(
    () => seenGround(plot),
    (now) => now < 60,
  );
  await hand.menu('Set up the trace of x', 'Make a picture of it');
  await hand.element('.picture-preview img');
  await hand.press('Save as pixels (PNG)');
  expect(ground(readFileSync(await downloaded(system.downloads, '.png')))).toBeGreaterThan(200);
  await system.page.keyboard.press('Escape');
  await system.page.waitForSelector('.modal.show', { hidden: true });
  // The screen has stayed dark behind it.
  expect(await seenGround(plot)).toBeLessThan(60);

  await system.page.keyboard.press('n');
  await hand.waitForText('What you see is pinned to the notebook.');
  await toNotebook(hand);
  expect(await seenGround('.pin-block svg, .pin-block img')).toBeGreaterThan(200);
  const devtools = await system.page.createCDPSession();
  const textOn = async (media: 'print' | 'screen') => {
    await devtools.send('Emulation.setEmulatedMedia', {
      media,
      features: [{ name: 'prefers-color-scheme', value: 'dark' }],
    });
    return system.page.evaluate(() => getComputedStyle(document.body).color);
  };
  expect(await textOn('print')).toBe('rgb(22, 40, 47)');
  expect(await textOn('screen')).toBe('rgb(228, 237, 236)');
});

test('what a canvas shows is light by the time that the page is printed, and dark again after it', async () => {
  await hand.press('Bench', 'nav');
  await until(
    () => seenGround(plot),
    (now) => now < 60,
  );
  const printed = () =>
    system.page.evaluate(async () => {
      const canvas = document.querySelector<HTMLCanvasElement>('.trace canvas');
      const light = () => {
        const { width = 0, height = 0 } = canvas ?? {};
        return canvas?.getContext('2d')?.getImageData(width >> 1, height - 60, 1, 1).data[1] ?? NaN;
      };
      // The browser takes its picture as soon as those who listen are done.
      dispatchEvent(new Event('beforeprint'));
      await Promise.resolve();
      const onPaper = light();
      dispatchEvent(new Event('afterprint'));
      await Promise.resolve();
      return { onPaper, after: light() };
    });
  const { onPaper, after } = await printed();
  expect(onPaper).toBeGreaterThan(150);
  expect(after).toBeLessThan(90);
});
