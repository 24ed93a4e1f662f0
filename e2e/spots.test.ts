import { atRest } from './support/atRest';
import { BenchHand } from './support/bench';
import { type Lab, openLab, share } from './support/lab';
import { until } from './support/system';

// Spot readings, from connection to a stored series, through the real interface, against what the apparatus truly does.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
let stage: Lab['stage'];

beforeAll(async () => {
  lab = await openLab('rail', { own: true, demo: true });
  ({ system, hand, stage } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

interface Cell {
  typed?: number;
  word?: string;
  value?: number;
  u?: number;
  pinned?: boolean;
}
interface Series {
  name: string;
  rows: { cells: Record<string, Cell>; removed: boolean }[];
}

/** The series of the investigation on the screen, as they are stored. */
const series = (): Promise<Series[]> =>
  system.page.evaluate(async () => {
    const id = /investigations\/([\w-]+)/.exec(location.pathname)?.[1] ?? '';
    const answer = await fetch(`/api/investigations/${id}`);
    const { runs } = (await answer.json()) as {
      runs: { name: string; spot: { rows: Series['rows'] } | null }[];
    };
    return runs.flatMap(({ name, spot }) => (spot === null ? [] : [{ name, rows: spot.rows }]));
  });
const counted = async (place = 0) => (await series())[place]?.rows.filter(({ removed }) => !removed) ?? [];

/** Types a value and takes a reading; where it is refused since a busy machine has just moved the apparatus, once more. */
async function take(name: string, value: number, count: number): Promise<void> {
  for (let tries = 0; tries < 3; tries++) {
    await hand.type(`${name} of the next reading`, String(value));
    const isTaken = await waitForRows(count, 4000).then(
      () => true,
      () => false,
    );
    if (isTaken) return;
  }
  await waitForRows(count);
}

/** Waits until so many readings of the series in front count. */
const waitForRows = (count: number, timeout = 10_000) =>
  system.page.waitForFunction(
    (wanted: number) => document.querySelectorAll('.spot-rows tbody tr').length === wanted,
    { timeout, polling: 100 },
    count,
  );

async function spotReadings(name: string, codes: string[]): Promise<void> {
  await hand.begin(system.site, name, codes);
  await hand.pressLabelled('Way of recording: Against time');
  await hand.item('Spot readings');
  await hand.waitForText('Take reading');
}

async function addColumn(name: string, unit: string, offset?: string): Promise<void> {
  await hand.pressLabelled('New column');
  await hand.element('[role="dialog"][aria-label="New column"]');
  await (await hand.element('input[aria-label="Name of the column"]')).type(name);
  const field = await hand.element('input[aria-label="Unit of the column"]');
  await field.type(unit);
  if (offset !== undefined) {
    const off = await hand.element('input[aria-label="Offset of the column"]');
    await off.click({ count: 3 });
    await off.type(offset);
  }
  await hand.press('Add the column');
  await hand.element(`input[aria-label="${name} of the next reading"]`);
}

const notRead = async (symbol: string) => {
  await hand.pressLabelled(`What is read of ${symbol}`);
  await hand.item('not read');
  await atRest(system.page);
};

test('field against distance: typed, taken with Enter, the sensing point taken off, pinned ones marked', async () => {
  await spotReadings('Field', ['F7-B']);
  await hand.pressLabelled('Set up F7-B');
  await system.page.select('[aria-label="Channel B"] select[id$="range"]', 'fine');
  await hand.pressLabelled('Close the set-up');
  await notRead('By');
  await notRead('Bz');
  await stage.set('Moment of the magnet', 1.5);
  await stage.press('Far away, for zeroing');
  await hand.zero();
  await addColumn('r', 'cm', '−1.2');
  const distances = [20, 3, 12, 8, 5, 2];
  for (const [i, distance] of distances.entries()) {
    await stage.set('Distance from the tip', distance / 100);
    await system.pass(1.25);
    await take('r', distance, i + 1);
  }
  const rows = await counted();
  expect(rows.map(({ cells }) => cells.r.typed)).toEqual(distances);
  for (const { cells } of rows) {
    const r = ((cells.r.typed ?? NaN) + 1.2) / 100;
    // µ₀ m/2π r³ of 1.5 A m², in mT, less what it still is half a metre away, where the zero is.
    const truth = 2e-7 * 1.5 * 1000 * (r ** -3 - 0.512 ** -3);
    expect(cells.B.pinned).toBe(truth > 8);
    if (truth < 8) expect(Math.abs((cells.B.value ?? NaN) - truth)).toBeLessThan(5 * (cells.B.u ?? NaN));
  }
  await hand.waitForText('△ at the sensor’s limit');
  // The sensing point lies behind the tip: 3.2 cm is where the nearest point that counts stands.
  const headings = await system.page.$$eval('.spot-rows th', (cells) =>
    cells.map(({ textContent }) => textContent),
  );
  expect(headings).toEqual(expect.arrayContaining(['r / cm', 'B / mT']));
  // The template knows another name and another unit of the distance; it finds this one by what it measures.
  await hand.template('Field law');
  const [power] = await hand.named('any power', 'exponent');
  expect(Math.abs(power.value + 3)).toBeLessThan(0.05);
  const [cube] = await hand.named('inverse cube', 'rSquared');
  const [square] = await hand.named('inverse square', 'rSquared');
  expect(1 - cube.value).toBeLessThan(0.1 * (1 - square.value));
});

test('what drifts is refused politely, and taken all the same; a wrong reading is dropped, that is undone, another is mended', async () => {
  await stage.set('Distance from the tip', 0.04);
  await hand.type('r of the next reading', 'nearly four');
  await hand.waitForText('“nearly four”');
  await hand.type('Averaged over, in seconds', '15');
  await hand.type('r of the next reading', '4');
  // Somebody moves the magnet while it is read: not before the first reading of the mean has come.
  await system.pass(3);
  await stage.set('Distance from the tip', 0.05);
  await hand.waitForText('Take it anyway');
  await hand.type('Averaged over, in seconds', '1');
  expect(await counted()).toHaveLength(6);
  await hand.press('Take it anyway');
  await waitForRows(7);
  await hand.menu('More for reading 7', 'Remove it');
  await waitForRows(6);
  await hand.pressLabelled('Undo');
  await waitForRows(7);
  await hand.type('r of reading 7', '4.1');
  await atRest(system.page);
  expect((await counted())[6].cells.r.typed).toBe(4.1);
  await hand.menu('More for reading 7', 'Take it again');
  await until(
    async () => (await series())[0].rows.filter(({ removed }) => removed).length,
    (removed) => removed === 1,
  );
  await waitForRows(7);
  // The big button and Space do what Enter does.
  await hand.press('Take reading');
  await waitForRows(8);
  await hand.element('.recorder .big:not(:disabled)');
  await system.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await system.page.keyboard.press('Space');
  await waitForRows(9);
});

test('a new series beside it, and everything is there after the server was killed', async () => {
  await hand.press('New series');
  await hand.type('r of the next reading', '10');
  await waitForRows(1);
  expect((await series()).map(({ rows }) => rows.length)).toEqual([10, 1]);
  await system.killServer();
  await system.restartServer();
  await system.page.reload({ waitUntil: 'load' });
  await waitForRows(1);
  await hand.waitForText('Spot readings');
});

test('a table without a sensor: rows cut out of a spreadsheet are pasted', async () => {
  await spotReadings('Springs', []);
  await addColumn('m', 'g');
  await addColumn('l', 'cm');
  const paste = (text: string) =>
    system.page.evaluate((pasted: string) => {
      const data = new DataTransfer();
      data.setData('text', pasted);
      document
        .querySelector('.spot-table')
        ?.dispatchEvent(
          new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
        );
    }, text);
  await paste('mass\tlength\n100\t12,5\n200\t15,1\n300\t17.4');
  await waitForRows(3);
  expect((await counted()).map(({ cells }) => [cells.m.typed, cells.l.typed])).toEqual([
    [100, 12.5],
    [200, 15.1],
    [300, 17.4],
  ]);
  await paste('400\tfar');
  await hand.waitForText('Row 1, column l of what was pasted');
  await hand.type('m of the next reading', '400');
  await hand.waitForText('Type l first');
  await hand.type('l of the next reading', '19.9');
  await waitForRows(4);
});

test('two screens at one series: words typed on the first, a number read on the second, both see all of it in its order', async () => {
  await spotReadings('Cores', ['F7-B']);
  await addColumn('core', '');
  const take = async (word: string, count: number) => {
    await hand.type('core of the next reading', word);
    await waitForRows(count);
  };
  await take('air', 1);
  await take('brass', 2);
  const other = await system.newPage(new URL(system.page.url()).pathname);
  const second = new BenchHand(other);
  await second.waitForText('Reading 3 of run 1');
  await second.type('core of the next reading', 'iron');
  await other.waitForFunction(() => document.querySelectorAll('.spot-rows tbody tr').length === 3, {
    timeout: 40_000,
    polling: 100,
  });
  await other.close();
  await system.page.bringToFront();
  await waitForRows(3);
  expect((await counted()).map(({ cells }) => cells.core.word)).toEqual(['air', 'brass', 'iron']);
});

test('resonance: a sweep steps the driver, waits, reads the amplitude, finer about the peak, as the exact curve has it', async () => {
  await stage.show('reed');
  await stage.set('Quality factor', 15);
  await spotReadings('Reed', ['R5-T']);
  // The first value moves what stands beside it.
  await hand.waitForText('rests');
  await hand.pressLabelled('What is read of y');
  await hand.item('amplitude of the swing');
  await hand.type('Driver’s amplitude of R5-T', '0.2');
  await hand.pressLabelled('New column');
  await (await hand.element('input[aria-label="Name of the column"]')).type('f');
  await system.page.select('select[aria-label="What the column sets"]', 'R5-T/frequency');
  await hand.press('Add the column');
  await hand.type('Settles for, in seconds', '1');
  await hand.press('Sweep f …');
  await hand.element('[role="dialog"][aria-label="Sweep"]');
  for (const [label, value] of [
    ['from', '15.3'],
    ['to', '19.3'],
    ['in steps of', '1'],
    ['about the peak down to', '0.25'],
  ])
    await hand.type(`${label}, sweep`, value);
  await hand.press('Begin the sweep');
  await hand.waitForText('Settling at');
  await hand.waitForText('Reading 12 of', 170_000);
  const rows = await counted();
  const [natural, quality] = [17.3, 15];
  for (const { cells } of rows) {
    const ratio = (cells.f.typed ?? NaN) / natural;
    const truth = 0.2 / Math.hypot(1 - ratio ** 2, ratio / quality);
    expect(share(cells.A.value ?? NaN, truth)).toBeLessThan(0.03);
  }
  const peak = rows.reduce((most, row) =>
    (row.cells.A.value ?? 0) > (most.cells.A.value ?? 0) ? row : most,
  );
  expect(Math.abs((peak.cells.f.typed ?? NaN) - natural)).toBeLessThan(0.26);
  await hand.template('Resonance');
  const [frequency] = await hand.named('the resonance', 'frequency');
  const [q] = await hand.named('Q', 'value');
  expect(share(frequency.value, natural)).toBeLessThan(0.003);
  expect(share(q.value, quality)).toBeLessThan(0.05);
}, 240_000);
