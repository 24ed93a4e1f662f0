import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type ElementHandle } from 'puppeteer-core';
import { barriersOn } from './support/barriers';
import { type BenchHand } from './support/bench';
import { stored, toNotebook, wordsOf } from './support/notebook';
import { signedIn } from './support/signedIn';
import { type System, downloaded, until } from './support/system';

// A short film in the notebook. The browser itself makes it (MP4, ISO/IEC 14496-14): red at first, then blue.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

/** A film of two seconds, as a file. */
async function film(): Promise<string> {
  const made = await system.page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    canvas.width = 320;
    canvas.height = 180;
    const context = canvas.getContext('2d');
    const recorder = new MediaRecorder(canvas.captureStream(25), { mimeType: 'video/mp4;codecs=vp9' });
    const parts: Blob[] = [];
    recorder.ondataavailable = ({ data }) => parts.push(data);
    const ended = new Promise((resolve) => (recorder.onstop = resolve));
    recorder.start();
    const begin = performance.now();
    await new Promise<void>((resolve) => {
      const draw = () => {
        const passed = performance.now() - begin;
        if (context !== null) {
          context.fillStyle = passed < 1000 ? '#c00000' : '#0000c0';
          context.fillRect(0, 0, 320, 180);
        }
        if (passed < 2000) requestAnimationFrame(draw);
        else resolve();
      };
      draw();
    });
    recorder.stop();
    await ended;
    const bytes = new Uint8Array(await new Blob(parts).arrayBuffer());
    return [...bytes].map((byte) => String.fromCharCode(byte)).join('');
  });
  const file = join(system.downloads, '..', 'film.mp4');
  writeFileSync(file, Buffer.from(made, 'latin1'));
  return file;
}

const upload = async (file: string) => {
  const field = await system.page.waitForSelector('input[aria-label="Film"]');
  await (field as ElementHandle<HTMLInputElement>).uploadFile(file);
};

/** The colour in the middle of the frame that is printed. */
const printed = () =>
  system.page.$eval('.film-frame', async (image) => {
    const one = image as HTMLImageElement;
    await one.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [one.naturalWidth, one.naturalHeight];
    const context = canvas.getContext('2d');
    context?.drawImage(one, 0, 0);
    const [red, , blue] = context?.getImageData(canvas.width / 2, canvas.height / 2, 1, 1).data ?? [0, 0, 0];
    return red > 2 * blue ? 'red' : blue > 2 * red ? 'blue' : 'neither';
  });

test('a film plays in the notebook; of it one frame that is chosen is printed and leaves the room', async () => {
  await hand.openCopy(system.site, 'Channel buoy');
  await toNotebook(hand);
  const file = await film();
  await upload(file);
  const video = (await hand.element('.film-block video')) as ElementHandle<HTMLVideoElement>;
  await hand.type('Caption of the film', 'The buoy lets go');
  const seek = (seconds: number) =>
    video.evaluate(
      (one, at) =>
        new Promise<void>((resolve) => {
          one.addEventListener('seeked', () => resolve(), { once: true });
          one.currentTime = at;
        }),
      seconds,
    );
  await until(
    () => video.evaluate((one) => one.readyState),
    (ready) => ready >= 1,
  );
  await seek(0.3);
  await hand.press('Print the frame that is seen', '.film-block');
  await hand.waitForText('In print stands the frame at 0.30 s.');
  await until(printed, (colour) => colour === 'red');
  await seek(1.7);
  await hand.press('Print the frame that is seen', '.film-block');
  await hand.waitForText('In print stands the frame at 1.70 s.');
  await until(printed, (colour) => colour === 'blue');
  await system.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press('z');
  await system.page.keyboard.up('Control');
  await hand.waitForText('In print stands the frame at 0.30 s.');
  expect(await barriersOn(system.page)).toEqual([]);
  await stored(system.page);
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.film-block video');
  expect((await wordsOf(system.page, '.block-name'))[0]).toBe('The buoy lets go');
  // On paper there is the frame and no player.
  await system.page.emulateMediaType('print');
  const seen = await system.page.$$eval('.film-block > *', (parts) =>
    parts.filter((part) => part.getBoundingClientRect().height > 0).map(({ tagName }) => tagName),
  );
  await system.page.emulateMediaType('screen');
  expect(seen).toEqual(['IMG', 'FIGCAPTION']);

  await hand.press('Save');
  await hand.item('Save as one page (HTML)');
  const saved = await downloaded(system.downloads, '.html');
  const html = readFileSync(saved, 'utf8');
  expect(html).toContain('The buoy lets go (a frame of a film, at 0.30 s)');
  expect(html).not.toMatch(/<video/);
  rmSync(saved);
});

test('what is no film is refused with the reason', async () => {
  const file = join(system.downloads, '..', 'other.mp4');
  writeFileSync(file, 'no film at all');
  await upload(file);
  await hand.waitForText('This browser cannot play this film. Save it as MP4 (H.264) first.');
  expect(await system.page.$$('.film-block')).toHaveLength(1);
});
