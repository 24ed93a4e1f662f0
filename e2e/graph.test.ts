import { atRest } from './support/atRest';
import { type Lab, openLab } from './support/lab';

// A graph that is worked on: traces, axes, views and cursors, through the real interface.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];

beforeAll(async () => {
  lab = await openLab('buoy');
  ({ system, hand } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const panels = () =>
  system.page.$$eval('[data-trace]', (all) => all.map((panel) => panel.getAttribute('data-trace')));
/** Low on the traces, clear of what stands beside a region; the ends of one take the press for themselves. */
const putCursorAt = async (t: number) => {
  const overlay = await hand.boxOf('[data-testid="overlay"]');
  const { from, to } = await hand.viewport();
  await system.page.mouse.click(
    overlay.x + ((t - from) / (to - from)) * overlay.width,
    overlay.y + overlay.height * 0.8,
  );
};
const heightOf = async (trace: string) => (await hand.boxOf(`[data-trace="${trace}"]`)).height;
/** The ends of an axis, as it says them itself. */
const axis = async (name: string): Promise<[number, number]> => {
  const said = await system.page.$eval(`[aria-label^="Axis of ${name}:"]`, (element) =>
    element.getAttribute('aria-label'),
  );
  const [from, to] = (said ?? '').replaceAll('−', '-').match(/-?\d+(\.\d+)?(e-?\d+)?/g) ?? [];
  return [Number(from), Number(to)];
};
const dragged = async (selector: string, from: [number, number], to: [number, number]) => {
  const { x, y, width, height } = await hand.boxOf(selector);
  await system.page.mouse.move(x + from[0] * width, y + from[1] * height);
  await system.page.mouse.down();
  await system.page.mouse.move(x + to[0] * width, y + to[1] * height, { steps: 6 });
  await system.page.mouse.up();
  await atRest(system.page);
};
const key = async (name: string, times = 1) => {
  for (let i = 0; i < times; i++) await system.page.keyboard.press(name as 'ArrowUp');
  await atRest(system.page);
};
/** A result of the entry whose sentence begins so. */
const kept = async (beginning: string, result: string) => {
  const card = await hand.element(`.result-card[aria-label^="${beginning}"]`);
  const label = await card.evaluate((element) => element.getAttribute('aria-label'));
  return hand.result(label ?? '', result);
};
const focus = (selector: string) =>
  system.page.$eval(selector, (element) => (element as HTMLElement).focus());

test('a run with two derivatives stands in three traces', async () => {
  await hand.begin(system.site, 'Swing', ['K7-D']);
  await lab.stage.press('Pull it down and hold');
  await lab.stage.press('Let go');
  await hand.lengthOfRun('4');
  await hand.record();
  await hand.press('Work out');
  await hand.item('Derivative of x');
  await hand.press('Work out');
  await hand.item('Derivative of v');
  await system.page.waitForFunction(() => document.querySelectorAll('[data-trace]').length === 3);
});

test('the border between two traces is dragged, and moved by keys; Undo takes it back', async () => {
  const before = await heightOf('channel:x');
  await dragged('.trace-border', [0.5, 0.5], [0.5, 5]);
  expect(await heightOf('channel:x')).toBeGreaterThan(before + 30);
  await hand.pressLabelled('Undo');
  await atRest(system.page);
  expect(await heightOf('channel:x')).toBeCloseTo(before, 0);
  await focus('.trace-border');
  await key('ArrowUp', 3);
  expect(await heightOf('channel:x')).toBeLessThan(before - 15);
  await hand.pressLabelled('Undo');
  await hand.pressLabelled('Undo');
  await hand.pressLabelled('Undo');
});

test('traces are put in another order by hand and by keyboard', async () => {
  const [x, v, a] = await panels();
  const grip = await hand.boxOf('[aria-label="Move the trace of x"]');
  const last = await hand.boxOf(`[data-trace="${a}"]`);
  await system.page.mouse.move(grip.x + 5, grip.y + 5);
  await system.page.mouse.down();
  await system.page.mouse.move(grip.x + 5, grip.y + 30, { steps: 4 });
  await system.page.mouse.move(grip.x + 5, last.y + last.height * 0.7, { steps: 8 });
  await atRest(system.page);
  await system.page.mouse.up();
  await atRest(system.page);
  expect(await panels()).toEqual([v, a, x]);
  await focus('[aria-label="Move the trace of x"]');
  await key('Enter');
  await key('ArrowUp');
  await key('ArrowUp');
  await key('Enter');
  await atRest(system.page);
  expect(await panels()).toEqual([x, v, a]);
});

test('an axis is dragged, stretched at its end, typed and let go; each is one step back of the view, and none of the work', async () => {
  const undoable = () =>
    system.page.$eval('[aria-label="Undo"]', (button) => !(button as HTMLButtonElement).disabled);
  const done = await undoable();
  const [low, high] = await axis('x');
  // In the middle, all of it moves down: greater values come into sight.
  await dragged('[aria-label^="Axis of x:"]', [0.5, 0.5], [0.5, 0.7]);
  const moved = await axis('x');
  expect(moved[0]).toBeGreaterThan(low);
  expect(moved[1] - moved[0]).toBeCloseTo(high - low, 3);
  // At its upper end, pulled down: the lower end stays.
  await dragged('[aria-label^="Axis of x:"]', [0.5, 0.1], [0.5, 0.5]);
  const stretched = await axis('x');
  expect(stretched[0]).toBeCloseTo(moved[0], 6);
  expect(stretched[1] - stretched[0]).toBeGreaterThan(1.5 * (high - low));
  await key('b');
  expect(await axis('x')).toEqual(moved);
  await key('b');
  expect(await axis('x')).toEqual([low, high]);
  const { x, y, width, height } = await hand.boxOf('[aria-label^="Axis of x:"]');
  await system.page.mouse.click(x + width / 2, y + height / 2);
  await hand.type('Upper end of the axis', '-5');
  await hand.waitForText('The upper end must be greater');
  await hand.type('Lower end of the axis', '-0.5');
  await hand.type('Upper end of the axis', '0.5');
  await atRest(system.page);
  expect(await axis('x')).toEqual([-0.5, 0.5]);
  await hand.press('Follow the data');
  await key('Escape');
  expect(await axis('x')).toEqual([low, high]);
  expect(await undoable()).toBe(done);
});

test('by keys an axis moves and zooms; the wheel zooms about what it points at', async () => {
  const [low, high] = await axis('v');
  await focus('[aria-label^="Axis of v:"]');
  await key('ArrowUp');
  const moved = await axis('v');
  expect(moved[0]).toBeGreaterThan(low);
  await key('+', 2);
  const near = await axis('v');
  expect(near[1] - near[0]).toBeLessThan(0.8 * (high - low));
  await key('Home');
  expect(await axis('v')).toEqual([low, high]);
  const { x, y, width, height } = await hand.boxOf('[aria-label^="Axis of t:"]');
  const [, end] = await axis('t');
  await system.page.mouse.move(x + width * 0.25, y + height / 2);
  await system.page.mouse.wheel({ deltaY: -100 });
  await atRest(system.page);
  const zoomed = await axis('t');
  const share = (0.25 * end - zoomed[0]) / (zoomed[1] - zoomed[0]);
  expect(share).toBeCloseTo(0.25, 1);
  await key('f');
  expect((await axis('t'))[1]).toBeCloseTo(end, 3);
});

test('a box that is drawn is what is looked at, along both axes', async () => {
  const before = [await axis('t'), await axis('x')];
  // As high as the plot.
  const panel = await hand.boxOf('[aria-label^="Axis of x:"]');
  const overlay = await hand.boxOf('[data-testid="overlay"]');
  const at = (across: number, down: number) =>
    system.page.mouse.move(overlay.x + across * overlay.width, panel.y + down * panel.height, { steps: 4 });
  await system.page.keyboard.down('Control');
  await at(0.25, 0.25);
  await system.page.mouse.down();
  await at(0.5, 0.75);
  await system.page.mouse.up();
  await system.page.keyboard.up('Control');
  await atRest(system.page);
  const [[from, to], [low, high]] = [await axis('t'), await axis('x')];
  const [[begin, end], [least, greatest]] = before;
  expect((from - begin) / (end - begin)).toBeCloseTo(0.25, 1);
  expect((to - begin) / (end - begin)).toBeCloseTo(0.5, 1);
  expect((low - least) / (greatest - least)).toBeCloseTo(0.25, 1);
  expect((high - least) / (greatest - least)).toBeCloseTo(0.75, 1);
  // One step back for both.
  await key('b');
  expect([await axis('t'), await axis('x')]).toEqual(before);
});

test('R shows only the region, and then what was seen before', async () => {
  await hand.mark(0.5, 1.5);
  await atRest(system.page);
  const before = await axis('t');
  await key('r');
  const [from, to] = await axis('t');
  expect(from).toBeCloseTo(0.5, 1);
  expect(to).toBeCloseTo(1.5, 1);
  await key('r');
  expect(await axis('t')).toEqual(before);
  await key('Escape');
});

test('two quantities in one trace have an axis each; a trace is shown alone for a moment', async () => {
  await hand.pressLabelled('Set up the trace of x');
  await hand.item('v');
  await key('Escape');
  await system.page.waitForFunction(
    () => document.querySelectorAll('[aria-label^="Axis of v:"]').length === 2,
  );
  expect(await system.page.$$eval('.axis-grip.right', (all) => all.length)).toBe(1);
  await hand.pressLabelled('Show only the trace of x');
  await atRest(system.page);
  expect(await panels()).toHaveLength(1);
  await hand.pressLabelled('Show all traces');
  await atRest(system.page);
  expect(await panels()).toHaveLength(3);
  await hand.pressLabelled('Undo');
  await system.page.waitForFunction(() => document.querySelectorAll('.axis-grip.right').length === 0);
});

test('the cursor goes from reading to reading, a second one tells what lies between, and both are kept as entries', async () => {
  const overlay = await hand.boxOf('[data-testid="overlay"]');
  await system.page.mouse.click(overlay.x + overlay.width * 0.5, overlay.y + 60);
  await hand.waitForText('on readings');
  const place = async () => {
    await atRest(system.page);
    const said = await system.page.$eval('.cursor-place', (element) => element.textContent ?? '');
    return Number(/t = (-?[\d.]+)/.exec(said.replace('−', '-'))?.[1]);
  };
  const first = await place();
  const [{ channels }] = await hand.runs();
  const [{ values, sampling }] = channels;
  const indexOf = (time: number) => (time - sampling.start) / sampling.interval;
  // It stands on a reading, as far as its digits tell.
  expect(Math.abs(indexOf(first) - Math.round(indexOf(first)))).toBeLessThan(0.03);
  await focus('[data-testid="overlay"]');
  await key('ArrowRight', 3);
  expect(await place()).toBeCloseTo(first + 0.06, 3);
  await system.page.keyboard.down('Shift');
  await key('ArrowLeft');
  await system.page.keyboard.up('Shift');
  expect(await place()).toBeCloseTo(first - 0.14, 3);
  await system.page.keyboard.down('Shift');
  await system.page.mouse.click(overlay.x + overlay.width * 0.25, overlay.y + 60);
  await system.page.keyboard.up('Shift');
  await hand.waitForText('slope between');
  const said = await system.page.$$eval('.cursor-place', (all) => all.map((one) => one.textContent ?? ''));
  const places = said
    .map((text) => Math.round(indexOf(Number(/t = ([\d.]+)/.exec(text)?.[1]))))
    .sort((one, other) => other - one);
  expect(places).toHaveLength(2);
  await hand.press('Add to workings');
  await hand.item('change of x between the cursors');
  const change = await kept('change of x', 'change');
  expect(change.value).toBeCloseTo(values[places[0]] - values[places[1]], 4);
  await system.page.click('#cursor-tangent');
  await hand.waitForText('tangent over 0.16 s');
  await hand.press('Add to workings');
  await hand.item('tangent to x');
  expect((await kept('tangent to x', 'slope')).uncertainty).toBeGreaterThan(0);
  await key('Escape');
  await key('Escape');
  expect(await system.page.$('.cursor-bar')).toBeNull();
});

/** The sheet as the server has it. */
const sheet = async () => {
  await hand.saved();
  return system.page.evaluate(async () => {
    const id = /investigations\/([^/]+)/.exec(location.pathname)?.[1] ?? '';
    const { workings } = (await (await fetch(`/api/investigations/${id}`)).json()) as {
      workings: {
        aside: { run: string; channel: string; ranges: [number, number][] }[];
        shifts: { run: string; by: number }[];
      };
    };
    return workings;
  });
};
const asideCount = async () =>
  (await sheet()).aside.flatMap(({ ranges }) => ranges).reduce((sum, [first, past]) => sum + past - first, 0);

test('readings are set aside: those in a region, all others, a single one; each result says how many, and Undo brings them back', async () => {
  await hand.pressLabelled('Region A');
  await hand.offer('x', 'mean');
  const [{ channels }] = await hand.runs();
  const [{ values }] = channels;
  await hand.pressLabelled('Region A');
  await hand.press('set aside');
  await hand.item('All but those in here');
  await hand.waitForText('○ set aside');
  const inside = values.length - (await asideCount());
  expect(inside).toBeGreaterThan(48);
  expect(inside).toBeLessThan(53);
  await hand.pressLabelled('Undo');
  expect(await asideCount()).toBe(0);
  await putCursorAt(1);
  await hand.press('Set aside');
  await hand.unfoldCard('.result-card[aria-label="mean of x"]');
  await hand.waitForText('1 reading was set aside.');
  expect(await asideCount()).toBe(1);
  await hand.pressLabelled('Undo');
  expect(await asideCount()).toBe(0);
  await key('Escape');
});

test('outliers are suggested by a rule that is said, and set aside only when it is wanted', async () => {
  await hand.pressLabelled('Region A');
  await hand.press('set aside');
  await hand.item('Outliers in this region …');
  await hand.waitForText('1.4826 times the median deviation');
  expect(await asideCount()).toBe(0);
  await key('Escape');
});

test('runs are aligned where they rise through a value, laid elsewhere by hand, and lie as recorded again', async () => {
  await lab.stage.press('Pull it down and hold');
  await lab.stage.press('Let go');
  await hand.record();
  // At a moment in which both runs rise: near a turn, one that has died away more never comes there.
  const [{ channels }] = (await hand.runs()).slice(-1);
  const [{ values, sampling }] = channels;
  // A wrong echo, or one at the sensor’s limit, is no part of the swing.
  const sorted = [...values].sort((a, b) => a - b);
  const [low, high] = [0.1, 0.9].map((share) => sorted[Math.round(share * (sorted.length - 1))]);
  const isSwing = (value: number) => value > low - 0.1 && value < high + 0.1;
  const middle = (low + high) / 2;
  const from = Math.round((1 - sampling.start) / sampling.interval);
  const rising = values.findIndex(
    (value, i) =>
      i > from && values[i - 1] < middle && value >= middle && values.slice(i - 3, i + 4).every(isSwing),
  );
  await putCursorAt(sampling.start + rising * sampling.interval);
  await atRest(system.page);
  await hand.press('Align runs');
  await system.page.waitForFunction(() => /rises through [−\d]/.test(document.body.innerText));
  const [item] = await system.page.$$eval('.cursor-bar .dropdown-item', (all) =>
    all.map((one) => one.textContent ?? '').filter((text) => text.includes('rises through')),
  );
  const level = Number(/through (-?[\d.]+)/.exec(item.replace('−', '-'))?.[1]);
  await hand.item(item);
  await hand.waitForText('Moved in time');
  const { shifts } = await sheet();
  expect(shifts).toHaveLength(1);
  const runs = await hand.runs();
  /** Where the readings of a run rise through the level, as they lie now. */
  const crossings = runs.map(({ channels: [{ values, sampling }] }, number) => {
    const by = number === 0 ? shifts[0].by : 0;
    const found: number[] = [];
    for (let i = 1; i < values.length; i++)
      if (values[i - 1] < level && values[i] >= level)
        found.push(
          by +
            sampling.start +
            sampling.interval * (i - 1 + (level - values[i - 1]) / (values[i] - values[i - 1])),
        );
    return found;
  });
  const nearest = Math.min(...crossings[0].flatMap((a) => crossings[1].map((b) => Math.abs(a - b))));
  // Within a tenth of a reading, but for the digits of the level in the menu.
  expect(nearest).toBeLessThan(0.003);
  await hand.press('As recorded');
  expect((await sheet()).shifts).toEqual([]);
  await key('Escape');
  await hand.menu('More for run 2', 'Move in time');
  await dragged('[data-testid="overlay"]', [0.3, 0.5], [0.5, 0.5]);
  const [moved] = (await sheet()).shifts;
  expect(moved.by).toBeGreaterThan(0.3);
  await hand.press('Done');
  await hand.pressLabelled('Undo');
  expect((await sheet()).shifts).toEqual([]);
});

test('a page of its own has its traces, its axis and its view; it is there after a reload', async () => {
  await hand.press('Traces');
  await hand.item('New page of traces');
  await hand.waitForText('Page 1');
  await hand.horizontal('x');
  await system.page.waitForFunction(
    () => document.querySelector('[aria-label^="Axis of x:"].level') !== null,
  );
  await hand.press('Page 1');
  await system.page.waitForFunction(
    () => document.querySelector('[aria-label^="Axis of t:"].level') !== null,
  );
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  await hand.press('Page 2');
  await system.page.waitForFunction(
    () => document.querySelector('[aria-label^="Axis of x:"].level') !== null,
  );
  await hand.pressLabelled('Remove Page 2');
  await system.page.waitForFunction(() => document.querySelector('.page-tabs') === null);
});
