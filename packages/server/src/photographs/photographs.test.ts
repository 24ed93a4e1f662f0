import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { type MadeParticipant } from '@heuristor/contracts';
import { type TestServer, startTestServer } from '../testing/testServer';

let server: TestServer;
let id: string;
let last = 0;
beforeAll(async () => {
  server = await startTestServer();
  id = ((await server.api('post', '/investigations', { name: 'Springs' })).body as { id: string }).id;
});
afterAll(() => server.close());

const newId = () => String(++last).padStart(12, '0');
const place = (photograph: string) => `/investigations/${id}/notebook/photographs/${photograph}`;
const send = (file: Buffer, photograph = newId()) =>
  server.api('post', place(photograph)).set('Content-Type', 'application/octet-stream').send(file);
const fetched = async (photograph: string) =>
  (await server.api('get', place(photograph)).responseType('blob').expect(200)).body as Buffer;
const sentence = (body: unknown) => (body as { error: { message: string } }).error.message;
/** A picture whose left upper quarter is red, the rest blue. */
const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#0000ff' } }).composite([
    {
      input: {
        create: {
          width: Math.floor(width / 2),
          height: Math.floor(height / 2),
          channels: 3,
          background: '#ff0000',
        },
      },
      left: 0,
      top: 0,
    },
  ]);
const isRedAt = async (file: Buffer, left: number, top: number) => {
  const [red, , blue] = await sharp(file).extract({ left, top, width: 1, height: 1 }).raw().toBuffer();
  return red > 200 && blue < 60;
};

test('where it was taken, by which camera and by whom does not leave the room; it stands upright', async () => {
  const file = await picture(400, 200)
    .withExif({
      IFD0: { Copyright: 'Somebody Secret', Model: 'Camera of Somebody' },
      IFD3: { GPSLatitude: '54/1 30/1 0/1', GPSLongitude: '7/1 55/1 0/1' },
    })
    // It lies on its side: turned by a quarter to the right it is upright (JEITA CP-3451, Orientation).
    .withMetadata({ orientation: 6 })
    .withExifMerge({ IFD0: { Artist: 'Name of a pupil' } })
    .jpeg()
    .toBuffer();
  expect(file.includes('Somebody Secret')).toBe(true);
  const photograph = newId();
  const { body } = await send(file, photograph).expect(201);
  expect(body).toEqual({ id: photograph, width: 200, height: 400 });
  const kept = await fetched(photograph);
  const { exif, xmp, iptc, orientation, width, height } = await sharp(kept).metadata();
  expect([exif, xmp, iptc, orientation]).toEqual([undefined, undefined, undefined, undefined]);
  expect([width, height]).toEqual([200, 400]);
  expect(kept.includes('Secret') || kept.includes('pupil') || kept.includes('Exif')).toBe(false);
  // What was above at the left is above at the right.
  expect([await isRedAt(kept, 190, 10), await isRedAt(kept, 10, 10)]).toEqual([true, false]);
  // Another program finds nothing either, where there is one (file, of Debian).
  if (existsSync('/usr/bin/file')) {
    const path = join(mkdtempSync(join(tmpdir(), 'photograph-')), 'kept.jpg');
    writeFileSync(path, kept);
    expect(spawnSync('/usr/bin/file', [path]).stdout.toString()).not.toMatch(/Exif|GPS/i);
  }
});

test('one of 60 million pixels becomes one that a page shows; as PNG too', async () => {
  const large = sharp({ create: { width: 9000, height: 6700, channels: 3, background: '#336699' } });
  for (const file of [await large.clone().jpeg().toBuffer(), await large.clone().png().toBuffer()]) {
    const { body } = await send(file).expect(201);
    expect(body).toMatchObject({ width: 2000, height: 1489 });
  }
});

test('a small one is not made larger; one that is partly clear lies on white', async () => {
  const clear = await sharp({
    create: { width: 20, height: 10, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
  })
    .png()
    .toBuffer();
  const photograph = newId();
  await send(clear, photograph).expect(201, { id: photograph, width: 20, height: 10 });
  const [red] = await sharp(await fetched(photograph))
    .raw()
    .toBuffer();
  expect(red).toBeGreaterThan(250);
});

test.each<[string, () => Promise<Buffer> | Buffer, RegExp]>([
  ['a drawing in SVG', () => Buffer.from('<?xml version="1.0"?><svg onload="x()"/>'), /SVG, HTML/],
  ['a page', () => Buffer.from('  <!doctype html><script>x()</script>'), /SVG, HTML/],
  [
    'a form that cannot be read',
    () => Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic', 'latin1'),
    /HEIC.*JPEG/,
  ],
  ['a moving picture', () => Buffer.from('GIF89a\x01\x00\x01\x00', 'latin1'), /GIF/],
  ['a text', () => Buffer.from('no picture at all'), /JPEG, PNG and WebP/],
  ['nothing', () => Buffer.alloc(0), /empty/],
  [
    'a half of a photograph',
    async () => {
      const whole = await picture(800, 600).jpeg().toBuffer();
      return whole.subarray(0, whole.length / 2);
    },
    /damaged/,
  ],
  [
    'noise that begins like a photograph',
    () => Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.alloc(500, 7)]),
    /damaged/,
  ],
  [
    'a small file of too many pixels',
    () =>
      sharp({ create: { width: 20_000, height: 7000, channels: 3, background: '#fff' } })
        .png()
        .toBuffer(),
    /million pixels/,
  ],
])('%s is refused with the reason', async (_, file, words) => {
  const { body, status } = await send(await file());
  expect([415, 422, 400]).toContain(status);
  expect(sentence(body)).toMatch(words);
});

test('whoever only looks on sends none; nobody finds those of others', async () => {
  const photograph = newId();
  await send(await picture(40, 20).png().toBuffer(), photograph).expect(201);
  const letIn = async (kind: 'participant' | 'screen') => {
    const { body } = await server.api('post', `/investigations/${id}/participants`, { name: 'Heron', kind });
    return server.signIn((body as MadeParticipant).token);
  };
  const [participant, screen] = [await letIn('participant'), await letIn('screen')];
  await participant.api('get', place(photograph)).expect(404);
  await screen.api('get', place(photograph)).expect(200);
  await screen
    .api('post', place(newId()))
    .set('Content-Type', 'application/octet-stream')
    .send(await picture(40, 20).png().toBuffer())
    .expect(403);
});

test('five at once are made one after the other, each as it is', async () => {
  const made = await Promise.all(
    [10, 20, 30, 40, 50].map(async (width) => send(await picture(width, 10).png().toBuffer()).expect(201)),
  );
  expect(made.map(({ body }) => (body as { width: number }).width)).toEqual([10, 20, 30, 40, 50]);
});
