import { execFile } from 'node:child_process';
import { mkdirSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { promisify } from 'node:util';
import { buildAll } from './build';
import { startCluster } from './cluster';
import { type Tally, runJest } from './jest';
import { PlainFault, runScript, say } from './plain';
import { withSites } from './testing/siteKeeper';

interface Check {
  name: string;
  args: string[];
}

const checks: Check[] = [
  { name: 'format', args: ['prettier', '--check', '.'] },
  { name: 'lint', args: ['eslint', '.'] },
  { name: 'types', args: ['tsc', '-p', 'tsconfig.json'] },
  {
    name: 'direction of dependencies',
    args: ['depcruise', '--config', '.dependency-cruiser.cjs', 'packages', 'e2e', 'scripts'],
  },
  { name: 'packages that nobody uses or declares', args: ['knip', '--dependencies', '--no-config-hints'] },
];

/** Checks of the whole tree, all at once; each counts as one test. */
async function checked(all: readonly Check[]): Promise<Tally[]> {
  const run = promisify(execFile);
  const running = all.map(({ args }) =>
    run('npx', args, { maxBuffer: 64 * 2 ** 20 }).then(
      () => null,
      ({ stdout = '', stderr = '', message }: { stdout?: string; stderr?: string; message: string }) =>
        `${stdout}${stderr}` || message,
    ),
  );
  const tallies: Tally[] = [];
  for (const [i, { name }] of all.entries()) {
    const fault = await running[i];
    say(`\n── ${name}\n${fault ?? 'ok'}`);
    tallies.push(fault === null ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });
  }
  return tallies;
}

/** Browser tests in which no device is timed: they go on beside those of the API, which mostly wait. */
const still =
  'e2e/(crawler|files|hands|kept|network|numbers|outcomes|pages|reading|screens|sheets|units|workings)\\.test';

/** Every test of the tree, by what it needs. */
interface Found {
  unit: string[];
  api: string[];
  browser: string[];
}

/** Tests whose path contains all that was named. */
function found(named: readonly string[]): Found {
  const { isUnit } = createRequire(import.meta.url)('../jest.bundle.cjs') as {
    isUnit: (path: string) => boolean;
  };
  const tests = ['packages', 'scripts', 'e2e']
    .flatMap((folder) =>
      readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((name) => join(folder, name)),
    )
    .filter((path) => /\.test\.tsx?$/.test(path) && !/node_modules|^e2e\/others\//.test(path))
    .filter((path) => named.some((words) => path.includes(words)));
  const browser = tests.filter((path) => path.startsWith('e2e/'));
  const unit = tests.filter(isUnit);
  return { unit, browser, api: tests.filter((path) => !browser.includes(path) && !unit.includes(path)) };
}

const unitOnly = ['--config', 'jest.config.cjs', '--selectProjects', 'unit', '--maxWorkers', '2'];
const apiOnly = ['--config', 'jest.config.cjs', '--selectProjects', 'api', 'programs', '--maxWorkers', '1'];
const browserOnly = ['--config', 'jest.e2e.config.cjs'];

/** The tests that were named, each with what it needs and nothing else. @throws PlainFault where there are none */
async function some(named: readonly string[], data: string, ending: AbortSignal): Promise<Tally[]> {
  const { unit, api, browser } = found(named);
  if (unit.length + api.length + browser.length === 0)
    throw new PlainFault(`No test has “${named.join('” or “')}” in its path.`);
  const tallies: Tally[] = [];
  const run = async (name: string, args: string[], tests: string[], environment: Record<string, string>) => {
    if (tests.length > 0)
      tallies.push(
        await runJest({ name, parts: [...args, '--runTestsByPath', ...tests], data, environment, ending }),
      );
  };
  await run('unit tests', unitOnly, unit, {});
  if (api.length + browser.length === 0) return tallies;
  await buildAll();
  const cluster = await startCluster(data, { durable: false, signal: ending });
  try {
    const environment = { HEURISTOR_TEST_DATABASE: cluster.address };
    await run('API tests', apiOnly, api, environment);
    if (browser.length > 0)
      await withSites(cluster.address, (sites) => run('browser tests', browserOnly, browser, sites));
  } finally {
    await cluster.stop();
  }
  return tallies;
}

/** All checks and tests. */
async function all(data: string, ending: AbortSignal): Promise<Tally[]> {
  const tallies = await checked(checks);
  await buildAll();
  const cluster = await startCluster(data, { durable: false, signal: ending });
  try {
    const ofAll = { data, ending, environment: { HEURISTOR_TEST_DATABASE: cluster.address } };
    // What only computes can do so twice at once.
    tallies.push(await runJest({ name: 'unit tests', parts: unitOnly, ...ofAll }));
    await withSites(cluster.address, async (environment) => {
      const ofBrowser = { ...ofAll, environment };
      tallies.push(
        ...(await Promise.all([
          runJest({ name: 'API tests', parts: apiOnly, ...ofAll }),
          runJest({
            name: 'still browser tests',
            parts: [...browserOnly, '--testPathPatterns', still],
            ...ofBrowser,
            isBeside: true,
          }),
        ])),
      );
      tallies.push(
        await runJest({
          name: 'browser tests',
          parts: [...browserOnly, '--testPathIgnorePatterns', still, 'e2e/others/'],
          ...ofBrowser,
        }),
      );
    });
  } finally {
    await cluster.stop();
  }
  return tallies;
}

/** `npm test` runs everything; `npm test -- NAME` the tests that have the name in their path. */
runScript(async (ending) => {
  const data = resolve('.test-data');
  mkdirSync(data, { recursive: true });
  const named = process.argv.slice(2);
  const tallies = await (named.length > 0 ? some(named, data, ending) : all(data, ending));
  const passed = tallies.reduce((sum, tally) => sum + tally.passed, 0);
  const failed = tallies.reduce((sum, tally) => sum + tally.failed, 0);
  say(`\n${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
});
