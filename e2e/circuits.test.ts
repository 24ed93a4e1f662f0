import { gravity } from '@heuristor/stand-ins';
import { atRest } from './support/atRest';
import { type Lab, openLab, share } from './support/lab';

// From connection to result, through the real interface, against what the apparatus truly does. Tolerances are those of a
// careful school lab: common practice, no source.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
let stage: Lab['stage'];

beforeAll(async () => {
  lab = await openLab('beacon');
  ({ system, hand, stage } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

test('the beacon discharges: begun by its switch, the slope of dU/dt against U is −1/RC within 1 %', async () => {
  await stage.show('beacon');
  await hand.begin(system.site, 'Beacon', ['V1-B']);
  await stage.press('Throw the switch');
  await hand.plan('Beginning', async () => {
    await hand.choose('begin-switch');
    await hand.pick('On or off', 'switches off');
    await hand.type('Time kept from before', '0.3');
  });
  await hand.lengthOfRun('4');
  await atRest(system.page);
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
  await hand.template('RC');
  const [[byCurve], [byLog]] = [await hand.named('τ', 'timeConstant'), await hand.named('τ_ln', 'value')];
  expect(share(byCurve.value, 1)).toBeLessThan(0.005);
  expect(share(byLog.value, 1)).toBeLessThan(0.01);
  await hand.waitForText('agree within their uncertainties');
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
  await hand.takeOffer('sine', true);
  const early = await hand.result('sine through U', 'amplitude');
  const period = await hand.result('sine through U', 'period');
  await hand.mark(0.0035, 0.0055);
  await hand.takeOffer('sine', true);
  const late = await hand.result('sine through U', 'amplitude', '[aria-label="On region B"]');
  const beta = 8 / (2 * 0.01);
  const omega = Math.sqrt(1 / (0.01 * 470e-9) - beta ** 2);
  expect(share(period.value, (2 * Math.PI) / omega)).toBeLessThan(0.005);
  expect(share(Math.log(early.value / late.value) / 0.003, beta)).toBeLessThan(0.05);
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
  await hand.takeOffer('area', true);
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
    await system.pass(3.5);
  }
  await hand.horizontal('U');
  await hand.mark(1, 5);
  await hand.offer('I', 'slope');
  const [resistor, lamp] = await hand.results('slope of I against U', 'slope');
  expect(share(1000 / resistor, 22)).toBeLessThan(0.005);
  expect(lamp).toBeLessThan(0.5 * (1000 / 4));
});

test('the reed rings down: period and decay', async () => {
  await stage.show('reed');
  await hand.begin(system.site, 'Reed', ['R5-T']);
  await hand.zero();
  await hand.beginAt('y', 'rises through', '1 mm', '0.1');
  await hand.lengthOfRun('1.5');
  await hand.recordWhen(() => stage.press('Pluck it'));
  await hand.mark(0.1, 0.3);
  await hand.takeOffer('sine', true);
  await hand.mark(0.8, 1);
  await hand.takeOffer('sine', true);
  const inA = '[aria-label="On region A"]';
  const early = await hand.result('sine through y', 'amplitude', inA);
  const late = await hand.result('sine through y', 'amplitude', '[aria-label="On region B"]');
  const { value } = await hand.result('sine through y', 'period', inA);
  const beta = (2 * Math.PI * 17.3) / 90;
  expect(share(1 / value, 17.3)).toBeLessThan(0.003);
  expect(share(Math.log(early.value / late.value) / 0.7, beta)).toBeLessThan(0.03);
});

test('1.4 m of height are seen by the barometer', async () => {
  await stage.show('weather');
  await stage.press('At the foot of the stair');
  await hand.begin(system.site, 'Barometer', ['Q8-P']);
  await hand.plan('Rate', () => hand.type('Sample rate of Q8-P', '0.2 s'));
  await hand.lengthOfRun('6');
  for (const place of ['At the foot of the stair', 'At its top']) {
    await stage.press(place);
    await system.pass(2.5);
    await hand.record();
  }
  await hand.mark(0.2, 5.8);
  await hand.offer('p', 'mean');
  const [foot, top] = await hand.results('mean of p', 'mean');
  const truth = (101_490 / (287.05 * 292.4)) * gravity * 1.4 * 0.01;
  // Two means of 28 readings that scatter by 0.01 hPa.
  expect(Math.abs(foot - top - truth)).toBeLessThan(3 * 0.01 * Math.sqrt(2 / 28) + 0.001);
});
