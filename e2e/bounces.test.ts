import { gravity } from '@heuristor/stand-ins';
import { type Lab, openLab } from './support/lab';
import { until } from './support/system';

// A ball that bounces under a motion sensor, against the speeds that the apparatus gives back.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
let stage: Lab['stage'];

beforeAll(async () => {
  lab = await openLab('ball');
  ({ system, hand, stage } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

test('a ball is dropped: each flight between two bounces is a row, and shorter than the one before by the share of the speed', async () => {
  await stage.show('ball');
  await stage.set('Share of the speed after a bounce', 0.75);
  await stage.set('Height of the drop', 1.2);
  // A wrong echo at the very bounce leaves that one out.
  await stage.errorsOf('K4-B');
  await stage.set('Echoes of x from something else', 0);
  await stage.press('Lift it and hold');
  await hand.begin(system.site, 'Ball', ['K4-B']);
  await hand.beginAt('x', 'rises through', '0.7');
  await hand.lengthOfRun('3');
  await hand.recordWhen(() => stage.press('Let go'));
  await hand.mark(-0.1, 2.9);
  await hand.offer('x', 'peaks');
  await hand.result('peaks and troughs of x', 'peak');
  await hand.press('Trials', 'nav[aria-label="Pages"]');
  // The sensor looks down: the floor is farthest from it, and a bounce a peak.
  await hand.press('Empty table');
  await hand.press('Rows: runs');
  await hand.item('each time between the peaks of x');
  const cells = () =>
    system.page.$$eval('.trial-grid tbody td.number', (all) =>
      all.map((cell) => ((cell as HTMLElement).innerText.match(/[\d.]+/g) ?? []).map(Number)),
    );
  const rows = await until(cells, (all) => all.filter(([value]) => value > 0).length >= 3, 15);
  const flights = rows.filter(([value]) => value > 0).slice(0, 3);
  // The first flight begins with e √(2 g h), and each is as long as twice its speed over g.
  const off = flights.flatMap(([value, u], k) => {
    const truth = (2 * 0.75 ** (k + 1) * Math.sqrt(2 * gravity * 1.2)) / gravity;
    const isTrue = u < 0.01 && Math.abs(value - truth) < Math.max(4 * u, 1e-4);
    return isTrue ? [] : [`${value} ± ${u} and not ${truth}, of ${JSON.stringify(rows)}`];
  });
  expect(off).toEqual([]);
});
