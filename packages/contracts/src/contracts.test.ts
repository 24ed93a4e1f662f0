import plan3 from '../examples/plan-3.json';
import workings1 from '../examples/workings-1.json';
import workings2 from '../examples/workings-2.json';
import workings3 from '../examples/workings-3.json';
import workings4 from '../examples/workings-4.json';
import workings5 from '../examples/workings-5.json';
import { UnreadableDocument } from './documents';
import { FrameError, decodeFrame, decodeFrames, encodeFrame, frameKinds, joinFrames } from './frames';
import { describeDevice, helloSchema } from './link';
import { readPlan, usualPlan } from './plan';
import { emptyWorkings, panelOf, readWorkings, withRunsRenamed, workingsSchema } from './workings';

const hello = {
  type: 'hello',
  protocol: 'heuristor-link',
  version: 1,
  device: { code: 'K7-D', model: 'Motion sensor' },
  channels: [
    { key: 'x', quantity: 'position', symbol: 'x', unit: 'm', range: { low: 0.15, high: 6 }, noise: 0.0003 },
  ],
  rates: { lowest: 1, highest: 100, usual: 50 },
};

test('a frame comes back as it was sent, missing readings included', () => {
  const frame = {
    kind: frameKinds.link,
    subject: 7,
    firstIndex: 4_000_000_000,
    channels: 2,
    values: Float64Array.of(1.5, NaN, -0, 1e-300),
    times: null,
  };
  expect(decodeFrame(encodeFrame(frame))).toEqual(frame);
});

test.each([
  ['too short', (bytes: Uint8Array) => bytes.slice(0, 15), 'at least 16 bytes, not 15'],
  ['cut off', (bytes: Uint8Array) => bytes.slice(0, 24), '2 samples of 1 channels are 32 bytes, not 24'],
  ['another protocol', (bytes: Uint8Array) => bytes.fill(0x47, 0, 1), 'byte 0 must be 0x48, not 0x47'],
  ['another version', (bytes: Uint8Array) => bytes.fill(2, 1, 2), 'frame version 2 is not known; use 1'],
  ['no channel', (bytes: Uint8Array) => bytes.fill(0, 3, 4), 'at least one channel'],
])('a frame that is %s is refused with what is wrong', (_, spoil, message) => {
  const bytes = encodeFrame({
    kind: frameKinds.link,
    subject: 1,
    firstIndex: 0,
    channels: 1,
    values: Float64Array.of(1, 2),
    times: null,
  });
  expect(() => decodeFrame(spoil(bytes))).toThrow(FrameError);
  expect(() => decodeFrame(spoil(bytes))).toThrow(message);
});

test.each([
  ['a wrong version', { ...hello, version: 4 }],
  ['a code in small letters', { ...hello, device: { ...hello.device, code: 'k7-d' } }],
  ['a range upside down', { ...hello, channels: [{ ...hello.channels[0], range: { low: 6, high: 0.15 } }] }],
  ['a usual rate out of reach', { ...hello, rates: { ...hello.rates, usual: 200 } }],
  ['no channel', { ...hello, channels: [] }],
])('a hello with %s is no hello', (_, message) => expect(helloSchema.safeParse(message).success).toBe(false));

const helloTwo = {
  type: 'hello',
  protocol: 'heuristor-link',
  version: 2,
  device: { code: 'V1-B', model: 'Voltage sensor' },
  streams: [
    {
      key: 'voltage',
      rates: { lowest: 1, highest: 50_000, usual: 100 },
      channels: [
        {
          key: 'voltage',
          quantity: 'voltage',
          symbol: 'U',
          unit: 'V',
          ranges: [{ key: 'wide', low: -10, high: 10, noise: 0.004, resolution: 0.005 }],
        },
      ],
    },
    {
      key: 'switch',
      sampling: 'events',
      channels: [
        {
          key: 'switch',
          quantity: 'switch',
          symbol: 'S',
          unit: '1',
          ranges: [{ key: 'all', low: -1, high: 2, noise: 0 }],
        },
      ],
    },
  ],
  state: { battery: 0.4 },
};

test('a device of version 2 may have several streams; one of version 1 has one, in the same words', () => {
  const description = describeDevice(helloSchema.parse(helloTwo));
  expect(description.streams.map(({ key, sampling }) => [key, sampling])).toEqual([
    ['voltage', 'regular'],
    ['switch', 'events'],
  ]);
  expect(description.state).toEqual({ battery: 0.4, signal: null, remark: '' });
  const older = describeDevice(helloSchema.parse(hello));
  expect(older.streams).toHaveLength(1);
  expect(older.streams[0].channels[0].ranges).toEqual([
    { key: 'only', low: 0.15, high: 6, noise: 0.0003, resolution: 0 },
  ]);
});

test.each([
  ['two streams of one key', { streams: [helloTwo.streams[0], helloTwo.streams[0]] }],
  ['one channel key twice', { streams: [helloTwo.streams[0], { ...helloTwo.streams[0], key: 'other' }] }],
  ['a regular stream without rates', { streams: [{ ...helloTwo.streams[0], rates: undefined }] }],
  [
    'a usual rate that is not among those it has',
    { streams: [{ ...helloTwo.streams[0], rates: { ...helloTwo.streams[0].rates, only: [1, 10] } }] },
  ],
  ['a battery of 140 %', { state: { battery: 1.4 } }],
])('a hello of version 2 with %s is no hello', (_, changes) =>
  expect(helloSchema.safeParse({ ...helloTwo, ...changes }).success).toBe(false),
);

test('the hello of the documentation is one', () => expect(helloSchema.safeParse(hello).success).toBe(true));

test('workings need ids of their own and odd windows', () => {
  const v = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
  expect(workingsSchema.safeParse({ ...emptyWorkings, entries: [v] }).success).toBe(true);
  expect(workingsSchema.safeParse({ ...emptyWorkings, entries: [v, v] }).success).toBe(false);
  expect(workingsSchema.safeParse({ ...emptyWorkings, entries: [{ ...v, windowPoints: 8 }] }).success).toBe(
    false,
  );
  expect(workingsSchema.safeParse({ ...emptyWorkings, entries: [{ ...v, of: 'x' }] }).success).toBe(false);
});

test('samples with times of their own, and several frames in one message, come back as they were sent', () => {
  const timedFrame = {
    kind: frameKinds.run,
    subject: 3,
    firstIndex: 5,
    channels: 1,
    values: Float64Array.of(1, 0, 1),
    times: Float64Array.of(0.1, 0.25, 0.3),
  };
  const regularFrame = { ...timedFrame, channels: 3, times: null };
  const message = joinFrames([encodeFrame(timedFrame), encodeFrame(regularFrame)]);
  expect(decodeFrames(message)).toEqual([timedFrame, regularFrame]);
  expect(() => decodeFrames(message.slice(0, -4))).toThrow(FrameError);
});

describe('stored documents', () => {
  test('the kept example of format 1 is read in today’s form, names untouched', () => {
    const { entries, pages } = readWorkings(workings1);
    expect(pages).toEqual([
      {
        id: 'page-1',
        name: '',
        horizontal: 't',
        panels: [panelOf('channel:x'), panelOf('entry:v')],
        labels: [],
      },
    ]);
    expect(entries[1]).toEqual({
      kind: 'derivative',
      id: 'v',
      name: 'line: v',
      of: 'channel:x',
      windowPoints: 9,
    });
    expect(entries[2]).toMatchObject({ kind: 'slope', of: 'entry:v', region: 'A' });
  });
  test('the kept example of format 2 has its traces on one page, none of them twice', () => {
    const { format, entries, pages } = readWorkings(workings2);
    expect(format).toBe(6);
    expect(entries).toMatchObject(workings2.entries);
    expect(pages).toEqual([
      {
        id: 'page-1',
        name: '',
        horizontal: 'channel:U',
        panels: [panelOf('channel:I'), panelOf('entry:p')],
        labels: [],
      },
    ]);
  });

  test('the kept example of format 3 has what it had, and no labels', () => {
    const { pages, ...rest } = readWorkings(workings3);
    const { pages: former, ...had } = workings3;
    expect(rest).toEqual({ ...had, format: 6, runs: [] });
    expect(pages).toEqual(former.map((page) => ({ ...page, labels: [] })));
  });

  test('the kept example of format 4 has what it had; fields that came later have their usual values', () => {
    const { entries, ...rest } = readWorkings(workings4);
    const { entries: former, ...had } = workings4;
    expect(rest).toEqual({ ...had, format: 6, runs: [] });
    expect(entries[1]).toEqual({ ...former[1], source: '', ends: '', shift: 0 });
    expect(entries).toMatchObject(former);
  });

  test('the kept example of format 5 has what it had; how its runs were looked at is taken with it', () => {
    const { format, ...had } = workings5;
    expect(format).toBe(5);
    expect(readWorkings(workings5)).toEqual({ ...had, format: 6, runs: [] });
    const runs = [
      { run: 'r1', hidden: true },
      { run: 'r2', style: 3 },
    ];
    expect(readWorkings({ ...workings5, runs }).runs).toEqual(runs);
    // A sheet of an older format may have been given them, too.
    expect(readWorkings({ ...workings2, runs }).runs).toEqual(runs);
  });

  test('what was done to runs for a sheet is done to their copies, and forgotten of runs without one', () => {
    const sheet = {
      ...emptyWorkings,
      pages: [
        {
          ...emptyWorkings.pages[0],
          panels: [{ ...panelOf('channel:x'), without: ['a', 'gone'] }],
          labels: ['a', 'gone'].map((run) => ({
            id: run,
            panel: 'channel:x',
            text: 'top',
            at: { kind: 'point' as const, run, series: 'channel:x' as const, x: 1 },
            offset: { x: 0, y: -20 },
          })),
        },
      ],
      aside: [
        { run: 'a', channel: 'x', ranges: [[3, 5]] as [number, number][] },
        { run: 'gone', channel: 'x', ranges: [[0, 1]] as [number, number][] },
      ],
      shifts: [
        { run: 'gone', by: 1 },
        { run: 'b', by: -0.5 },
      ],
      runs: [
        { run: 'gone', hidden: true as const },
        { run: 'b', style: 2 },
      ],
    };
    const renamed = withRunsRenamed(
      sheet,
      new Map([
        ['a', 'a2'],
        ['b', 'b2'],
      ]),
    );
    expect(renamed.aside).toEqual([{ run: 'a2', channel: 'x', ranges: [[3, 5]] }]);
    expect(renamed.shifts).toEqual([{ run: 'b2', by: -0.5 }]);
    expect(renamed.runs).toEqual([{ run: 'b2', style: 2 }]);
    expect(renamed.pages[0].panels[0].without).toEqual(['a2']);
    expect(renamed.pages[0].labels.map(({ at }) => at)).toEqual([
      { kind: 'point', run: 'a2', series: 'channel:x', x: 1 },
    ]);
  });

  test.each([
    [{ lengthSeconds: 5 }, { kind: 'after', seconds: 5 }],
    [{ format: 2, lengthSeconds: null, begin: { kind: 'at-once' }, bindings: [] }, { kind: 'stopped' }],
  ])('an older plan, %j, begins at once, once, and ends as it did', (older, end) =>
    expect(readPlan(older)).toEqual({ ...usualPlan, end }),
  );

  test('a plan of format 3 goes on against time, without a line', () => {
    const plan = readPlan(plan3);
    expect(plan).toMatchObject({ format: 4, way: 'time', pace: null, spot: { columns: [] } });
    expect(plan.begin).toEqual(plan3.begin);
    expect(plan.conditions).toEqual(plan3.conditions);
  });
  test('a newer format and a damaged document are refused by name', () => {
    expect(() => readWorkings({ format: 7 })).toThrow(UnreadableDocument);
    expect(() => readWorkings({ format: 2, entries: 7 })).toThrow('The workings are damaged at');
    expect(() => readWorkings('text')).toThrow('they are no document');
  });
});
