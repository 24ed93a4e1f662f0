import { gravity } from '@heuristor/stand-ins';
import { BenchHand, type StoredRun, firstPlace } from './support/bench';
import { StageHand } from './support/stage';
import { type System, pause, startSystem } from './support/system';

// From connection to result, through the real interface, against what the apparatus truly does. Tolerances are those of a
// careful school lab: common practice, no source.

let system: System;
let hand: BenchHand;
let stage: StageHand;

beforeAll(async () => {
  system = await startSystem();
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
  stage = await StageHand.open(system, 'bell');
  await system.page.bringToFront();
}, 60_000);
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const share = (value: number, truth: number) => Math.abs(value / truth - 1);

/** Complete elliptic integral of the first kind by the arithmetic-geometric mean (Abramowitz and Stegun, 17.6). */
function elliptic(modulus: number): number {
  let [a, b] = [1, Math.sqrt(1 - modulus * modulus)];
  while (Math.abs(a - b) > 1e-15) [a, b] = [(a + b) / 2, Math.sqrt(a * b)];
  return Math.PI / (2 * a);
}

/** When a channel of a run rises through a level, in seconds of the run. */
function riseOf({ channels }: StoredRun, key: string, level: number): number {
  const channel = channels.find((candidate) => candidate.key === key);
  if (channel === undefined) throw new Error(`no ${key}`);
  const { values, sampling } = channel;
  for (let i = 1; i < values.length; i++)
    if (values[i - 1] < level && values[i] >= level)
      return (
        sampling.start + sampling.interval * (i - 1 + (level - values[i - 1]) / (values[i] - values[i - 1]))
      );
  throw new Error(`${key} never rises through ${level}`);
}

test('pendulum at 10°, 45° and 90°: begins on rising through zero, and has the period of the elliptic integral within 0.3 %', async () => {
  await stage.set('Damping', 0);
  await hand.begin(system.site, 'Ship’s bell', ['B2-R']);
  await hand.beginAt('θ', 'rises through', '0');
  await hand.lengthOfRun('7');
  const amplitudes = [10, 45, 90];
  for (const amplitude of amplitudes) {
    await stage.set('Pull aside', amplitude);
    await stage.press('Pull it aside and hold');
    await hand.recordWhen(() => stage.press('Let go'));
  }
  for (const run of await hand.runs()) {
    expect(Math.abs(riseOf(run, 'θ', 0))).toBeLessThan(0.02);
    expect(run.channels[0].sampling.start).toBeGreaterThanOrEqual(-0.2);
    expect(run.channels[0].sampling.start).toBeLessThan(-0.17);
  }
  await hand.mark(0.2, 6.6);
  await hand.press('sine', '.offers');
  (await hand.results('sine through θ', 'period')).forEach((period, i) => {
    const truth = 4 * Math.sqrt(0.6 / gravity) * elliptic(Math.sin((amplitudes[i] * Math.PI) / 360));
    expect(share(period, truth)).toBeLessThan(0.003);
  });
});

test('slipway: zeroed each run, begun at 5 mm and ended at 0.9 m by itself, the acceleration comes out within 1 %', async () => {
  await stage.show('lifeboat');
  await hand.begin(system.site, 'Slipway', ['K3-L']);
  await hand.zeroAtStart('K3-L', 'x');
  await hand.beginAt('x', 'rises through', '5 mm', '0.3');
  await hand.endAt('x', 'rises through', '90 cm');
  for (let run = 0; run < 3; run++) {
    await stage.press('Hold it at the top');
    await hand.recordWhen(async () => {
      await pause(1200);
      await stage.press('Let go');
    });
  }
  for (const { channels, notes } of await hand.runs()) {
    const [{ values, sampling }] = channels;
    const beyond = values.slice(firstPlace(values, (x) => x > 0.8 && x < 1.2)).filter((x) => x >= 0.9);
    expect(beyond.length).toBeGreaterThanOrEqual(1);
    expect(beyond.length).toBeLessThanOrEqual(3);
    // The tenth before it was let go rests at its own zero.
    const still = values.filter((_, i) => sampling.start + i * sampling.interval < -0.15);
    // But for a wrong echo.
    expect(still.filter((x) => Math.abs(x) > 0.002).length).toBeLessThanOrEqual(1);
    expect(notes).toEqual([]);
  }
  await hand.mark(0.1, 1.15);
  await hand.press('parabola', '.offers');
  const truth = gravity * (Math.sin((6 * Math.PI) / 180) - 0.01 * Math.cos((6 * Math.PI) / 180));
  for (const a of await hand.results('parabola through x', 'curvature'))
    expect(share(a, truth)).toBeLessThan(0.01);
});

test('a wheel rolled by hand tells the way by the radius that is typed for it, and its angle in turns', async () => {
  await stage.show('wheel');
  await stage.press('Back to the mark');
  await hand.begin(system.site, 'Wheel', ['W3-R']);
  await hand.waitForText('The battery of W3-R is at 12 %.');
  await hand.pressLabelled('Set up W3-R');
  await hand.type('Radius of the wheel of W3-R', '3.1 cm');
  await hand.pick('Unit of φ', 'turn');
  await hand.pressLabelled('Close the set-up');
  await hand.lengthOfRun('4');
  await hand.page.keyboard.press('Space');
  await hand.waitForText('Space stops');
  await stage.carry('Wheel: roll it', 'ArrowRight', 10, 100);
  await hand.waitForText('Run 2 is ready', 10_000);
  const [{ channels }] = await hand.runs();
  const last = (key: string) => channels.find((channel) => channel.key === key)?.values.at(-1) ?? NaN;
  expect(channels[0].unit).toBe('{turn}');
  const rolled = await stage.place('Wheel: roll it');
  expect(rolled).toBeGreaterThan(0.3);
  expect(Math.abs(last('s') - rolled)).toBeLessThan(0.003);
  expect(Math.abs(last('φ') - last('s') / (2 * Math.PI * 0.031))).toBeLessThan(0.002);
});

test('a weight pulls the boat: zeroed each run, begun at 5 mm, ended at 0.6 m by itself; five weights give g/m within 2 %, and the tension falls when it moves', async () => {
  await stage.show('trolley');
  await hand.begin(system.site, 'Boat and weight', ['K5-C']);
  await hand.zeroAtStart('K5-C', 'x');
  // The weight lies on the floor and the string is slack: this is where the force has its zero.
  await stage.press('Let go');
  await pause(3000);
  await hand.press('Zero');
  await hand.waitForText('Zeroed less than a minute ago', 8000);
  await hand.beginAt('x', 'rises through', '5 mm', '0.5');
  await hand.endAt('x', 'rises through', '60 cm');
  const masses = [0.02, 0.04, 0.06, 0.08, 0.1];
  for (const mass of masses) {
    await stage.set('Mass that hangs', mass);
    await stage.press('Bring it back and hold');
    await hand.recordWhen(async () => {
      // It rests for a moment where every run has its zero.
      await pause(900);
      await stage.press('Let go');
    });
  }
  const runs = await hand.runs();
  for (const run of runs) {
    expect(Math.abs(riseOf(run, 'x', 0.005))).toBeLessThan(0.02);
    const { values } = run.channels[0];
    expect(values[values.length - 1]).toBeGreaterThan(0.58);
    expect(values[values.length - 1]).toBeLessThan(0.66);
    expect(run.notes).toEqual([]);
  }
  await hand.mark(0.05, 0.75);
  await hand.offer('x', 'parabola');
  const accelerations = await hand.results('parabola through x', 'curvature');
  const total = 0.5;
  const friction = 0.004;
  accelerations.forEach((a, i) => {
    const truth = (masses[i] * gravity - friction * (total - masses[i]) * gravity) / total;
    expect(share(a, truth)).toBeLessThan(0.02);
  });
  // Slope of acceleration against hanging mass.
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [m, a] = [mean(masses), mean(accelerations)];
  const slope =
    masses.reduce((sum, mass, i) => sum + (mass - m) * (accelerations[i] - a), 0) /
    masses.reduce((sum, mass) => sum + (mass - m) ** 2, 0);
  expect(share(slope, (gravity / total) * (1 + friction))).toBeLessThan(0.02);
  // The string's pull while the boat accelerates; held before, it was M g.
  await hand.offer('F', 'mean');
  const moving = await hand.result('mean of F', 'mean');
  expect(Math.abs(moving.value - 0.1 * (gravity - accelerations[4]))).toBeLessThan(0.01);
  await hand.mark(-0.45, -0.2);
  await hand.offer('F', 'mean');
  // The first of the two means stands under region A, the second under region B.
  const held = await hand.result('mean of F', 'mean', '[aria-label="On region B"]');
  expect(Math.abs(held.value - 0.1 * gravity)).toBeLessThan(0.01);
});

test('a tethered boat, light and loaded, string and elastic: ∫F dt is m Δv within 2 % and what the water’s friction takes', async () => {
  await stage.show('mooring');
  await stage.press('Bring it back');
  await hand.begin(system.site, 'Mooring line', ['M1-D', 'M1-F']);
  await hand.press('Zero', '[aria-label="Force sensor M1-F"]');
  await hand.waitForText('Zeroed less than a minute ago', 8000);
  await hand.beginAt('F', 'rises through', '0.5 N', '0.6');
  await hand.lengthOfRun('1.2');
  const cases = [
    { elastic: 0, load: 0 },
    { elastic: 0, load: 0.5 },
    { elastic: 1, load: 0 },
    { elastic: 1, load: 0.5 },
  ];
  for (const { elastic, load } of cases) {
    await stage.set('Tether', elastic);
    await stage.set('Load', load);
    await stage.press('Bring it back');
    await hand.recordWhen(() => stage.press('Push it off'));
  }
  await hand.mark(-0.45, -0.1);
  await hand.offer('x', 'line');
  const before = await hand.results('line through x', 'slope');
  await hand.mark(0.75, 1.15);
  await hand.offer('x', 'line');
  const after = await hand.results('line through x', 'slope', '[aria-label="On region B"]');
  await hand.mark(-0.05, 0.72);
  await hand.offer('F', 'area');
  const areas = await hand.results('area under F', 'area');
  cases.forEach(({ load }, i) => {
    const change = (0.5 + load) * (before[i] - after[i]);
    // The water's friction takes 0.0098 m/s² for the time between the two stretches.
    const friction = (0.5 + load) * 0.001 * gravity * 0.9;
    expect(Math.abs(areas[i] - change)).toBeLessThan(0.02 * change + friction);
  });
});

test('a cord is stretched by hand: force against position, the squiggly ends left out, gives its stiffness', async () => {
  await stage.show('cord');
  await hand.begin(system.site, 'Cord', ['C6-F']);
  await hand.press('Zero');
  await hand.waitForText('Zeroed less than a minute ago', 8000);
  await hand.lengthOfRun('6');
  await hand.page.keyboard.press('Space');
  await hand.waitForText('Space stops');
  await stage.carry('End of the cord: pull it', 'ArrowRight', 18, 160);
  await hand.waitForText('Run 2 is ready', 15_000);
  await hand.horizontal('x');
  await hand.mark(0.1, 0.3);
  await hand.press('slope', '.offers');
  const { value } = await hand.result('slope of F against x', 'slope');
  expect(share(value, 24)).toBeLessThan(0.01);
});

test('the beacon discharges: begun by its switch, the slope of dU/dt against U is −1/RC within 1 %', async () => {
  await stage.show('beacon');
  await hand.begin(system.site, 'Beacon', ['V1-B']);
  await stage.press('Throw the switch');
  await hand.plan('Beginning', async () => {
    await hand.choose('begin-switch');
    await hand.pick('On or off', 'switches off');
    await hand.type('Stretch kept from before', '0.3');
  });
  await hand.lengthOfRun('4');
  await pause(4000);
  await hand.recordWhen(() => stage.press('Throw the switch'));
  const [run] = await hand.runs();
  expect(run.channels.map(({ key }) => key)).toEqual(['U', 'I', 'S']);
  expect(run.channels[0].sampling.start).toBeLessThan(-0.28);
  await hand.press('Work out');
  await hand.item('Derivative of U');
  await hand.mark(0.1, 2.5);
  await hand.offer('dU', 'slope');
  await hand.against('slope of dU', 'U');
  const { value } = await hand.result('slope of dU against U', 'slope');
  expect(share(value, -1)).toBeLessThan(0.01);
});

test('coil and capacitor at 50 kHz: the frequency is 1/2π√LC and the swing dies away with R/2L', async () => {
  await stage.show('ringing');
  await hand.begin(system.site, 'Coil and capacitor', ['V2-L']);
  await hand.plan('Rate', () => hand.type('Sample rate of V2-L', '50 kHz'));
  await hand.waitForText('Take 50000 readings a second');
  await hand.beginAt('U', 'rises through', '1 V', '0.001');
  await hand.lengthOfRun('0.02');
  await hand.recordWhen(() => stage.press('Send a pulse'));
  const [run] = await hand.runs();
  expect(run.channels[0].values.length).toBeGreaterThan(1000);
  expect(run.gaps).toEqual([]);
  await hand.mark(0.0005, 0.0025);
  await hand.press('sine', '.offers');
  const early = await hand.result('sine through U', 'amplitude');
  const period = await hand.result('sine through U', 'period');
  await hand.mark(0.0035, 0.0055);
  await hand.press('sine', '.offers');
  const late = await hand.result('sine through U', 'amplitude', '[aria-label="On region B"]');
  const beta = 8 / (2 * 0.01);
  const omega = Math.sqrt(1 / (0.01 * 470e-9) - beta ** 2);
  expect(share(period.value, (2 * Math.PI) / omega)).toBeLessThan(0.005);
  expect(share(Math.log(early.value / late.value) / 0.003, beta)).toBeLessThan(0.05);
});

test('two seconds at 50 kHz: not a reading is lost', async () => {
  await hand.lengthOfRun('2');
  await hand.recordWhen(() => stage.press('Send a pulse'));
  const runs = await hand.runs();
  const { channels, gaps, notes } = runs[runs.length - 1];
  expect(channels[0].values.length).toBeGreaterThanOrEqual(100_000);
  expect(channels[0].values.filter((value) => !Number.isFinite(value))).toEqual([]);
  expect([gaps, notes]).toEqual([[], []]);
});

test('a magnet falls through a coil: both areas are the flux, and equal', async () => {
  await stage.show('fallingMagnet');
  await hand.begin(system.site, 'Hatch magnet', ['V4-C']);
  await stage.press('Lift it and hold');
  await hand.beginAt('U', 'falls through', '-5 mV', '0.2');
  await hand.lengthOfRun('0.3');
  await hand.recordWhen(() => stage.press('Let go'));
  const [run] = await hand.runs();
  const { values, sampling } = run.channels[0];
  // The two peaks meet where the voltage rises through zero between its least and its greatest.
  const least = values.indexOf(Math.min(...values));
  const middle = sampling.start + sampling.interval * values.findIndex((u, i) => i > least && u >= 0);
  await hand.mark(-0.19, middle);
  await hand.press('area', '.offers');
  await hand.type('End of region A', middle.toFixed(5));
  const first = await hand.result('area under U', 'area');
  await hand.type('End of region A', '0.28');
  await hand.type('Start of region A', middle.toFixed(5));
  const second = await hand.result('area under U', 'area');
  const flux = ((4e-7 * Math.PI * 600 * 0.9) / (2 * 0.015)) * 1000;
  expect(share(-first.value, flux)).toBeLessThan(0.03);
  expect(share(second.value, -first.value)).toBeLessThan(0.02);
});

test('a resistor on the ramp keeps to its 22 Ω, and the lamp does not keep to its cold 4 Ω', async () => {
  await stage.show('lamp');
  await hand.begin(system.site, 'Lamp and resistor', ['V3-G']);
  await hand.beginAt('U', 'rises through', '0.1 V', '0.2');
  await hand.lengthOfRun('2.8');
  for (const kind of [0, 1]) {
    await stage.set('In the circuit', kind);
    await hand.recordWhen(() => stage.press('Run the ramp up and down'));
    await pause(3500);
  }
  await hand.horizontal('U');
  await hand.mark(1, 5);
  await hand.offer('I', 'slope');
  const [resistor, lamp] = await hand.results('slope of I against U', 'slope');
  expect(share(1000 / resistor, 22)).toBeLessThan(0.005);
  expect(lamp).toBeLessThan(0.5 * (1000 / 4));
});

test('the field at eight distances, zeroed far from the magnet, falls with the cube from the sensing point', async () => {
  await stage.show('rail');
  await hand.begin(system.site, 'Field of the hatch magnet', ['F7-B']);
  await stage.press('Far away, for zeroing');
  await hand.press('Zero');
  await hand.waitForText('Zeroed less than a minute ago', 8000);
  await hand.lengthOfRun('1');
  const distances = [0.06, 0.07, 0.08, 0.1, 0.12, 0.15, 0.2, 0.25];
  for (const distance of distances) {
    await stage.set('Distance from the tip', distance);
    await pause(400);
    await hand.record();
  }
  await hand.mark(0.1, 0.9);
  await hand.offer('B', 'mean');
  const means = await hand.results('mean of B', 'mean');
  means.forEach((mean, i) => {
    // What the magnet itself still gives half a metre away is taken off by the zero.
    const truth = 1.8e-4 / (distances[i] + 0.012) ** 3 - 1.8e-4 / 0.512 ** 3;
    expect(Math.abs(mean - truth)).toBeLessThan(0.01 * truth + 0.02);
  });
});

test('the reed rings down: period and decay', async () => {
  await stage.show('reed');
  await hand.begin(system.site, 'Reed', ['R5-T']);
  await hand.press('Zero');
  await hand.waitForText('Zeroed less than a minute ago', 8000);
  await hand.beginAt('y', 'rises through', '1 mm', '0.1');
  await hand.lengthOfRun('1.5');
  await hand.recordWhen(() => stage.press('Pluck it'));
  await hand.mark(0.1, 0.3);
  await hand.press('sine', '.offers');
  await hand.mark(0.8, 1);
  await hand.press('sine', '.offers');
  const inA = '[aria-label="On region A"]';
  const early = await hand.result('sine through y', 'amplitude', inA);
  const late = await hand.result('sine through y', 'amplitude', '[aria-label="On region B"]');
  const { value } = await hand.result('sine through y', 'period', inA);
  const beta = (2 * Math.PI * 17.3) / 90;
  expect(share(1 / value, 17.3)).toBeLessThan(0.003);
  expect(share(Math.log(early.value / late.value) / 0.7, beta)).toBeLessThan(0.03);
});

test('1.8 m of height are seen by the barometer', async () => {
  await stage.show('weather');
  await stage.press('On the floor');
  await hand.begin(system.site, 'Barometer', ['Q8-P']);
  await hand.plan('Rate', () => hand.type('Sample rate of Q8-P', '0.2 s'));
  await hand.lengthOfRun('6');
  for (const place of ['On the floor', 'On the sill']) {
    await stage.press(place);
    await pause(500);
    await hand.record();
  }
  await hand.mark(0.2, 5.8);
  await hand.offer('p', 'mean');
  const [floor, sill] = await hand.results('mean of p', 'mean');
  const truth = (101_490 / (287.05 * 292.4)) * gravity * 1.8 * 0.01;
  // Two means of 28 readings that scatter by 0.01 hPa.
  expect(Math.abs(floor - sill - truth)).toBeLessThan(3 * 0.01 * Math.sqrt(2 / 28) + 0.001);
});
