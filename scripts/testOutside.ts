import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { buildAll } from './build';
import { startCluster } from './cluster';
import { runJest } from './jest';
import { runScript, say } from './plain';
import { startSiteKeeper } from './testing/siteKeeper';

/** What leaves the application is opened by programs of others. They are large, so that “npm test” does without them. */
runScript(async (ending) => {
  const data = resolve('.test-data');
  mkdirSync(data, { recursive: true });
  await buildAll();
  const cluster = await startCluster(data, { durable: false, signal: ending });
  const keeper = await startSiteKeeper(cluster.address);
  const { passed, failed } = await runJest({
    name: 'tests with other programs',
    parts: [
      '--config',
      'jest.e2e.config.cjs',
      '--testPathIgnorePatterns',
      'node_modules',
      '--testPathPatterns',
      'e2e/others/',
    ],
    data,
    environment: { HEURISTOR_TEST_SITES: keeper.address },
    ending,
  }).finally(async () => {
    await keeper.close();
    await cluster.stop();
  });
  say(`\n${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
});
