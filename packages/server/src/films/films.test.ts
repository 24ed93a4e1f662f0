import { type TestServer, startTestServer } from '../testing/testServer';

let server: TestServer;
let id: string;
let last = 0;
beforeAll(async () => {
  server = await startTestServer();
  id = ((await server.api('post', '/investigations', { name: 'Springs' })).body as { id: string }).id;
});
afterAll(() => server.close());

const place = (film: string, of = id) => `/investigations/${of}/notebook/films/${film}`;
const newId = () => String(++last).padStart(12, '0');
const send = (file: Buffer, film = newId()) =>
  server.api('post', place(film)).set('Content-Type', 'application/octet-stream').send(file);
const fetched = async (film: string, of = id) =>
  (await server.api('get', place(film, of)).responseType('blob').expect(200)).body as Buffer;
const sentence = (body: unknown) => (body as { error: { message: string } }).error.message;

// A film by hand, by ISO/IEC 14496-12: one track of pictures, one of positions, and what a telephone says of itself.

const u32 = (...values: number[]) => {
  const bytes = Buffer.alloc(4 * values.length);
  values.forEach((value, i) => bytes.writeUInt32BE(value, 4 * i));
  return bytes;
};
const u16 = (...values: number[]) => {
  const bytes = Buffer.alloc(2 * values.length);
  values.forEach((value, i) => bytes.writeUInt16BE(value, 2 * i));
  return bytes;
};
const box = (type: string, ...parts: Buffer[]): Buffer => {
  const content = Buffer.concat(parts);
  return Buffer.concat([u32(content.length + 8), Buffer.from(type, 'latin1'), content]);
};
const text = (words: string) => Buffer.from(words, 'latin1');
/** Seconds since 1904, as such files count: 2026-11-23. */
const when = 3_847_000_000;
const matrix = u32(0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000);

interface Track {
  id: number;
  handler: 'vide' | 'meta';
  entry: Buffer;
  sample: Buffer;
  at: number;
}
const track = ({ id: number, handler, entry, sample, at }: Track, seconds: number) =>
  box(
    'trak',
    box(
      'tkhd',
      u32(3, when, when, number, 0, 1000 * seconds, 0, 0),
      u16(0, 0, 0, 0),
      matrix,
      u32(64 << 16, 48 << 16),
    ),
    box(
      'mdia',
      box('mdhd', u32(0, when, when, 1000, 1000 * seconds), u16(0x55c4, 0)),
      box('hdlr', u32(0, 0), text(handler), u32(0, 0, 0), text('Somebody\0')),
      box(
        'minf',
        handler === 'vide' ? box('vmhd', u32(1), u16(0, 0, 0, 0)) : box('nmhd', u32(0)),
        box('dinf', box('dref', u32(0, 1), box('url ', u32(1)))),
        box(
          'stbl',
          box('stsd', u32(0, 1), entry),
          box('stts', u32(0, 1, 1, 1000 * seconds)),
          box('stsc', u32(0, 1, 1, 1, 1)),
          box('stsz', u32(0, 0, 1, sample.length)),
          box('stco', u32(0, 1, at)),
        ),
      ),
    ),
  );
const pictures = box(
  'avc1',
  Buffer.alloc(6),
  u16(1, 0, 0),
  Buffer.alloc(12),
  u16(64, 48),
  u32(0x480000, 0x480000, 0),
  u16(1),
  Buffer.alloc(32),
  u16(24, 0xffff),
  box('avcC', Buffer.from([1, 66, 0, 10, 0xff, 0xe0, 0])),
);
const positions = box('mett', Buffer.alloc(6), u16(1), text('\0application/gps\0'));

function film(seconds = 2): Buffer {
  const [picture, position] = [text('PICTURE-BYTES-OF-THE-FILM'), text('POSITION 54.5 N 7.9 E')];
  const begin = box('ftyp', text('isom'), u32(0), text('isomiso2'));
  const data = box('mdat', picture, position);
  const at = begin.length + 8;
  const moov = box(
    'moov',
    box(
      'mvhd',
      u32(0, when, when, 1000, 1000 * seconds, 0x10000),
      u16(0x100, 0),
      u32(0, 0),
      matrix,
      Buffer.alloc(24),
      u32(3),
    ),
    track({ id: 1, handler: 'vide', entry: pictures, sample: picture, at }, seconds),
    track({ id: 2, handler: 'meta', entry: positions, sample: position, at: at + picture.length }, seconds),
    box(
      'udta',
      box('\xa9xyz', u16(18, 0x15c7), text('+54.5000+007.9000/')),
      box('auth', text('Name of a pupil')),
    ),
  );
  // Room that was left, with something in it; its size stands in 8 bytes.
  const room = Buffer.concat([u32(1), text('free'), u32(0, 36), text('Left by Somebody Old')]);
  return Buffer.concat([
    begin,
    data,
    moov,
    room,
    box('uuid', Buffer.alloc(16), text('<xmp>Somebody Secret</xmp>')),
  ]);
}

test('where, when and by whom it was made does not leave the room; what is seen of it stays, byte by byte', async () => {
  const file = film();
  const name = newId();
  const { body } = await send(file, name).expect(201);
  expect(body).toEqual({ id: name, width: 64, height: 48 });
  const kept = await fetched(name);
  expect(kept).toHaveLength(file.length);
  expect(kept.includes('PICTURE-BYTES-OF-THE-FILM')).toBe(true);
  for (const secret of ['54.5', '007.9', 'POSITION', 'pupil', 'Somebody Secret', 'Somebody Old']) {
    expect([secret, file.includes(secret)]).toEqual([secret, true]);
    expect([secret, kept.includes(secret)]).toEqual([secret, false]);
  }
  expect(kept.includes(u32(when))).toBe(false);
  // The tables of the pictures are as they were.
  const table = (all: Buffer) => all.subarray(all.indexOf('stsd'), all.indexOf('stsd') + 120);
  expect(table(kept)).toEqual(table(file));
});

test('a part of it is answered to who asks for a part', async () => {
  const name = newId();
  await send(film(), name).expect(201);
  const whole = await fetched(name);
  const answer = await server
    .api('get', place(name))
    .set('Range', 'bytes=4-7')
    .responseType('blob')
    .expect(206);
  expect((answer.body as Buffer).toString()).toBe('ftyp');
  expect(answer.headers['content-range']).toBe(`bytes 4-7/${whole.length}`);
});

test('what is none, lasts too long, is too large or ends too soon is refused with the reason', async () => {
  const asked: [Buffer, RegExp][] = [
    [text('<svg onload="hurt()"/>'), /This is no film that can be read here: MP4 and MOV can\./],
    [film(61), /This film lasts 61 s; 60 s at most are kept\. Cut it first\./],
    [film().subarray(0, 90), /no moving picture in this file, or it ends too soon/],
    [Buffer.concat([u32(8), text('ftyp'), Buffer.alloc(4000, 0xff)]), /no moving picture|ended over it/],
  ];
  for (const [file, why] of asked) expect(sentence((await send(file).expect(415)).body)).toMatch(why);
  const large = await send(Buffer.alloc((24 << 20) + 1)).expect(413);
  expect(sentence(large.body)).toBe('A film has 24 MB at most. Cut it or make it smaller first.');
  await server.api('get', place('nothing12345')).expect(404);
});

test('a copy of the investigation has its films, and a notebook only so many', async () => {
  const name = newId();
  await send(film(), name).expect(201);
  const copy = (await server.api('post', `/investigations/${id}/copy`, {}).expect(201)).body as {
    id: string;
  };
  expect(await fetched(name, copy.id)).toEqual(await fetched(name));
  let status = 201;
  let said = '';
  for (let i = 0; i < 6 && status === 201; i++) {
    const answer = await send(film());
    status = answer.status;
    if (status !== 201) said = sentence(answer.body);
  }
  expect([status, said]).toEqual([429, 'This notebook has 6 films already.']);
});
