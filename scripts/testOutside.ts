import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { buildAll } from './build';
import { startCluster } from './cluster';
import { runJest } from './jest';
import { runScript, say } from './plain';
import { withSites } from './testing/siteKeeper';

const parts = ['--config', 'jest.config.cjs', '--selectProjects', 'others', '--maxWorkers', '1'];

/** What leaves the application is opened by programs of others. They are large, so that “npm test” does without them. */
runScript(async (ending) => {
  const data = resolve('.test-data');
  mkdirSync(data, { recursive: true });
  await buildAll();
  const cluster = await startCluster(data, { durable: false, signal: ending });
  try {
    const { passed, failed } = await withSites(cluster.address, (environment) =>
      runJest({ name: 'tests with other programs', parts, data, environment, ending }),
    );
    say(`\n${passed} passed, ${failed} failed`);
    process.exitCode = failed === 0 ? 0 : 1;
  } finally {
    await cluster.stop();
  }
  process.exit();
});
