import { type Lab, openLab } from './support/lab';

// A device that records by itself and is carried off, through the real interface.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
let stage: Lab['stage'];

beforeAll(async () => {
  lab = await openLab('walker', { own: true });
  ({ system, hand, stage } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const somebody = 'Somebody: drag them to and fro';

async function carry(what: string): Promise<void> {
  await stage.page.bringToFront();
  await stage.page.click('[aria-label="Carry off K9-W"]');
  const item = await stage.page.waitForSelector(
    `::-p-xpath(//*[contains(@class,"dropdown-item") and normalize-space()="${what}"])`,
    { visible: true },
  );
  await item?.click();
  await system.page.bringToFront();
}

test('started, carried off, brought back: it says what it does throughout; fetched and ended, it is a run with its origin', async () => {
  await hand.begin(system.site, 'On the quay', ['K9-W']);
  await hand.pressLabelled('Way of recording: Against time');
  await hand.item('Away from the computer');
  await hand.waitForText('Nothing is kept by a device');
  await hand.type('Seconds of the run away', '300');
  await hand.press('Start it');
  await hand.waitForText('It may be carried off');
  await carry('Carry it off for ten seconds');
  await hand.waitForText('Bring it back to fetch the run');
  await stage.page.bringToFront();
  await hand.waitForText('It may be carried off');
  await hand.press('Fetch, and let it go on');
  await hand.waitForText('1 · run 1');
  const [first] = await hand.runs();
  // What was taken while it was away is there, without a gap.
  expect(first.channels[0].values.length).toBeGreaterThan(450);
  expect(first.gaps).toEqual([]);
  expect(first.notes.join(' ')).toContain('It still records');
  await system.pass(7.5);
  await hand.press('Fetch and end');
  await hand.waitForText('Nothing is kept by a device');
  const after = await hand.runs();
  expect(after).toHaveLength(1);
  expect(after[0].channels[0].values.length).toBeGreaterThan(first.channels[0].values.length);
  expect(after[0].notes.join(' ')).toMatch(/Recorded by K9-W by itself\..*its|the device’s own clock/);
  expect(after[0].channels[0].sampling).toMatchObject({ kind: 'regular', start: 0, interval: 0.02 });
});

test('begun by its own button while it was away; it fell down, lost its clock, and says so; discarded, put back, fetched', async () => {
  await hand.pick('Beginning of the run away', 'by its own button');
  await hand.press('Prepare it');
  await hand.waitForText('Waits to begin');
  await carry('Carry it off and press its button there');
  await hand.waitForText('Not on the link');
  await stage.page.bringToFront();
  await hand.waitForText('Still recording');
  await carry('Carry it off and drop it, so that its battery falls out');
  await hand.waitForText('Not on the link');
  await hand.waitForText('Stopped early');
  await hand.waitForText('lost its clock');
  await hand.press('Discard');
  await hand.waitForText('Discarded. It is forgotten when the device is prepared anew');
  await hand.press('Put it back');
  await hand.press('Fetch');
  await hand.waitForText('2 · run 2');
  const [, run] = await hand.runs();
  expect(run.notes.join(' ')).toContain('when this run began is not known');
  expect(run.channels[0].values.length).toBeGreaterThan(300);
});

test('begun by a level: it waits on the shelf until somebody walks through it', async () => {
  const place = (await stage.place(somebody)) + 0.2;
  await hand.pick('Beginning of the run away', 'at a level');
  await hand.type('Level of the run away', place.toFixed(2));
  await hand.press('Prepare it');
  await hand.waitForText('Waits to begin');
  await system.pass(5);
  await stage.carry(somebody, 'ArrowRight', 12, 0.3);
  await hand.waitForText('Still recording');
  await hand.press('Fetch and end');
  await hand.waitForText('3 · run 3');
  const run = (await hand.runs())[2];
  // It began where it was crossed. One reading alone may be a wrong echo, the middle one of three is none.
  const [, middle] = [...run.channels[0].values.slice(0, 3)].sort((one, other) => one - other);
  expect(Math.abs(middle - place)).toBeLessThan(0.1);
});

test('the runs are there after the server was killed', async () => {
  await system.killServer();
  await system.restartServer();
  await system.page.reload({ waitUntil: 'load' });
  await hand.waitForText('3 · run 3');
  await hand.waitForText('A device records by itself');
});
