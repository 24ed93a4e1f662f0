import { FakeDevice } from '../../packages/server/src/testing/fakeDevice';
import { buildAll } from '../build';
import { runScript, say } from '../plain';
import { computation } from './computation';
import { homeOfAYear } from './home';
import { print } from './figures';
import { liveTraces, thirtyRuns } from './graphs';
import { draggedRegion, idleBench, millionPoints } from './screen';
import { hugeImports, largeImport } from './imports';
import { liveStream } from './service';
import { longRun } from './longRun';
import { openSite } from './site';
import { standInsIdle } from './standIns';
import { draggedTrials } from './draggedTrials';
import { manyRows } from './manyRows';
import { manyTrials } from './trials';
import { thoroughTests, truth } from './truth';

const shortSeconds = 60;
const hourSeconds = 3600;

/** Prints each figure beside its budget. Parts can be named: computation, screen, service, imports, home, trials; "hour" and "truth" run only when they are named. */
runScript(async (ending) => {
  const wanted = process.argv.slice(2);
  const has = (part: string) => wanted.length === 0 || wanted.includes(part);
  if (wanted.includes('truth')) {
    for (const figure of truth()) print([figure]);
    print([thoroughTests()]);
  }
  if (has('computation')) print(computation());
  const isHour = wanted.includes('hour');
  if (!['screen', 'service', 'home', 'imports', 'rows', 'trials'].some(has) && !isHour) process.exit(0);
  await buildAll();
  const site = await openSite(ending);
  try {
    if (has('screen')) {
      print(await millionPoints(site));
      print(await draggedRegion(site));
      print(await thirtyRuns(site));
      print(await liveTraces(site));
      const device = await FakeDevice.connect(site.port, 'Y1-Y', (t) => 1 + 0.1 * Math.sin(5 * t));
      print(await idleBench(site, 'Y1-Y'));
      device.vanish();
    }
    if (has('service')) {
      print(await standInsIdle(site));
      print(await liveStream(site));
      print(await longRun(site, shortSeconds));
    }
    if (has('imports')) {
      print(await largeImport(site));
      print(await hugeImports(site));
    }
    if (has('rows')) print(await manyRows(site));
    if (has('rows')) print(await draggedTrials(site));
    if (has('trials')) print(await manyTrials(site));
    if (has('home')) print(await homeOfAYear(site));
    if (isHour) print(await longRun(site, hourSeconds));
  } finally {
    await site.close();
  }
  say('');
  process.exit(0);
});
