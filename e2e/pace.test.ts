import { atRest } from './support/atRest';
import { type Lab, openLab } from './support/lab';

// Following a line, from connection to a stored try, through the real interface.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
let stage: Lab['stage'];

beforeAll(async () => {
  lab = await openLab('walker', { own: true, pace: 1 });
  ({ system, hand, stage } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

interface Point {
  t: number;
  value: number;
}

interface Line {
  quantity: string;
  unit: string;
  points: Point[];
  made: { kind: string; seed?: number };
}

const stored = (): Promise<{ pace: Line | null; runs: { pace: Line | null }[] }> =>
  system.page.evaluate(async () => {
    const id = /investigations\/([\w-]+)/.exec(location.pathname)?.[1] ?? '';
    const { plan, runs } = (await (await fetch(`/api/investigations/${id}`)).json()) as {
      plan: { pace: Line | null };
      runs: { plan: { pace: Line | null } }[];
    };
    return { pace: plan.pace, runs: runs.map((run) => ({ pace: run.plan.pace })) };
  });

const lineNow = async (): Promise<Line> => {
  const { pace } = await stored();
  if (pace === null) throw new Error('no line');
  return pace;
};

function valueAt(points: readonly Point[], t: number): number {
  const next = points.findIndex((point) => point.t > t);
  if (next < 0) return points[points.length - 1].value;
  if (next === 0) return points[0].value;
  const [a, b] = [points[next - 1], points[next]];
  return a.value + ((t - a.t) / (b.t - a.t)) * (b.value - a.value);
}

/** Records a try in which somebody walks along a line as well as steps of 5 cm allow. */
async function walk({ points }: Line): Promise<void> {
  const step = (key: string) =>
    stage.page.$eval(
      '.grabbable',
      (element, pressed) =>
        element.dispatchEvent(new KeyboardEvent('keydown', { key: pressed, bubbles: true })),
      key,
    );
  const place = () =>
    stage.page.$eval('.grabbable', (element) => Number(element.getAttribute('aria-valuenow')));
  const near = async (wanted: number) => {
    const off = wanted - (await place());
    if (Math.abs(off) > 0.06) await step(off > 0 ? 'ArrowRight' : 'ArrowLeft');
  };
  for (let i = 0; i < 60 && Math.abs((await place()) - points[0].value) > 0.08; i++) {
    await near(points[0].value);
    await system.pass(0.12);
  }
  await hand.press('Record');
  await system.page.waitForFunction(() => document.body.innerText.includes('Recording run'), {
    timeout: 40_000,
  });
  const begun = Date.now();
  const length = points[points.length - 1].t;
  for (let t = 0; t < length; t = (Date.now() - begun) / 1000) {
    await near(valueAt(points, t + 0.1));
    await system.pass(0.04);
  }
  await hand.waitForText('is ready');
}

const closeness = async () =>
  Number(await system.page.$eval('[data-testid="closeness"] .number', (element) => element.textContent));

test('a line by its number is followed: ribbon, countdown, rms difference, slope by slope; the try is kept with its line', async () => {
  await hand.begin(system.site, 'Walk', ['K9-W']);
  await hand.pressLabelled('Way of recording: Against time');
  await hand.item('Following a line');
  await hand.waitForText('Make a line, draw one');
  await hand.press('Make a line');
  await hand.type('Number of the line', '4821');
  await hand.waitForText('Begin at');
  await system.page.waitForSelector('[data-trace="channel:x"]');
  await atRest(system.page);
  const line = await lineNow();
  expect(line.made).toMatchObject({ kind: 'generated', seed: 4821 });
  await walk(line);
  const rms = await closeness();
  expect(rms).toBeGreaterThan(0.005);
  // On a busy machine the hand comes late.
  expect(rms).toBeLessThan(0.3);
  const { runs } = await stored();
  expect(runs[0].pace?.points).toEqual(line.points);
  // The result is what the readings say, worked out here once more.
  const [{ channels }] = await hand.runs();
  const [{ values, sampling }] = channels;
  // A wrong echo jumps away from its neighbours by more than a hand moves in a few hundredths of a second.
  const isWrongEcho = (i: number) => {
    const around = values.slice(Math.max(0, i - 2), i + 3).sort((a, b) => a - b);
    return Math.abs(values[i] - around[Math.floor(around.length / 2)]) > 0.15;
  };
  const squares = values.flatMap((value, i) => {
    const t = sampling.start + i * sampling.interval;
    const within = t >= 0 && t <= line.points[line.points.length - 1].t;
    return within && !isWrongEcho(i) ? [(value - valueAt(line.points, t)) ** 2] : [];
  });
  const expected = Math.sqrt(squares.reduce((sum, square) => sum + square, 0) / squares.length);
  expect(Math.abs(rms - expected)).toBeLessThan(0.01);
  expect((await hand.result('slopes of x along the line', 'own2')).value).toBeCloseTo(0.32, 1);
});

test('the same number is the same line for the next student; another one is another', async () => {
  const first = await lineNow();
  await hand.press('Another line');
  await atRest(system.page);
  expect((await lineNow()).points).not.toEqual(first.points);
  await hand.begin(system.site, 'Next student', ['K9-W']);
  await hand.pressLabelled('Way of recording: Against time');
  await hand.item('Following a line');
  await hand.press('Make a line');
  await hand.type('Number of the line', '4821');
  await atRest(system.page);
  expect((await lineNow()).points).toEqual(first.points);
});

test('a line is drawn with the pointer, mended by typing, and followed; a run becomes the line of the next one', async () => {
  await hand.press('Draw one');
  const plot = await hand.element('.draw-plot');
  const box = await plot.boundingBox();
  if (box === null) throw new Error('no plot');
  const { mouse } = system.page;
  await mouse.move(box.x + box.width * 0.1, box.y + box.height * 0.7);
  await mouse.down();
  for (let i = 0; i <= 40; i++)
    await mouse.move(
      box.x + box.width * (0.1 + 0.02 * i),
      box.y + box.height * (i < 20 ? 0.7 - 0.015 * i : 0.4),
    );
  await mouse.up();
  const drawn = await system.page.$eval('#line-points', (area) =>
    (area as HTMLTextAreaElement).value.trim().split('\n'),
  );
  expect(drawn.length).toBeGreaterThan(2);
  expect(drawn.length).toBeLessThan(15);
  const area = await hand.element('#line-points');
  await area.click({ count: 1 });
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press('a');
  await system.page.keyboard.up('Control');
  await system.page.keyboard.type('0 1\n2 1\n1 2');
  await hand.waitForText('the time 1 is not after the one before it');
  await system.page.keyboard.press('Backspace');
  await system.page.keyboard.press('Backspace');
  await system.page.keyboard.press('Backspace');
  await system.page.keyboard.type('4 1.8\n6 1.8');
  await hand.press('Follow this line');
  await atRest(system.page);
  expect(await lineNow()).toMatchObject({
    made: { kind: 'drawn' },
    points: [
      { t: 0, value: 1 },
      { t: 2, value: 1 },
      { t: 4, value: 1.8 },
      { t: 6, value: 1.8 },
    ],
  });
  await walk(await lineNow());
  expect(await closeness()).toBeLessThan(0.3);
  await hand.press('From a run');
  await hand.item('run 1');
  await atRest(system.page);
  const copied = await lineNow();
  expect(copied.made.kind).toBe('run');
  // It runs through the readings of the run, wherever the hand has been.
  const [{ channels }] = await hand.runs();
  const { values, sampling } = channels.find(({ key }) => key === 'x') ?? channels[0];
  for (const t of [1, 3, 5.5]) {
    const at = Math.round((t - sampling.start) / sampling.interval);
    const near = values.slice(at - 3, at + 4).sort((a, b) => a - b);
    expect(Math.abs(valueAt(copied.points, t) - near[3])).toBeLessThan(0.12);
  }
});

test('line and tries are there after the server was killed', async () => {
  const before = await closeness();
  await system.killServer();
  await system.restartServer();
  await system.page.reload({ waitUntil: 'load' });
  await system.page.waitForSelector('[data-testid="closeness"]');
  expect(await closeness()).toBe(before);
  expect((await lineNow()).made.kind).toBe('run');
});
