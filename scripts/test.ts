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
    run('nice', ['npx', ...args], { maxBuffer: 64 * 2 ** 20 }).then(
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

/** Every test of the tree, by what it needs. */
interface Found {
  unit: string[];
  api: string[];
  browser: string[];
}

const { isUnit, make } = createRequire(import.meta.url)('../jest.bundle.cjs') as {
  isUnit: (path: string) => boolean;
  /** Makes the scripts of tests, and sets where they are for those that run them. */
  make: (isWanted: (path: string) => boolean) => Promise<void>;
};

/** Tests whose path contains all that was named. */
function found(named: readonly string[]): Found {
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

const parts = (workers: number, ...projects: string[]) => [
  ...['--config', 'jest.config.cjs', '--maxWorkers', String(workers), '--selectProjects'],
  ...projects,
];

/** The tests that were named, each with what it needs and nothing else. @throws PlainFault where there are none */
async function some(named: readonly string[], data: string, ending: AbortSignal): Promise<Tally[]> {
  const { unit, api, browser } = found(named);
  if (unit.length + api.length + browser.length === 0)
    throw new PlainFault(`No test has “${named.join('” or “')}” in its path.`);
  const tests = [...unit, ...api, ...browser];
  const run = (environment: Record<string, string>) =>
    runJest({
      name: 'tests',
      parts: [...parts(2, 'browser', 'api', 'programs', 'unit'), '--runTestsByPath', ...tests],
      data,
      environment,
      ending,
    });
  if (api.length + browser.length === 0) return [await run({})];
  await buildAll();
  return withCluster(data, ending, async (cluster) => [
    await (browser.length === 0
      ? run(cluster.environment)
      : withSites(cluster.address, (sites) => run({ ...cluster.environment, ...sites }))),
  ]);
}

/** A database for tests, as long as they run. */
async function withCluster<T>(
  data: string,
  ending: AbortSignal,
  work: (cluster: { address: string; environment: Record<string, string> }) => Promise<T>,
): Promise<T> {
  const cluster = await startCluster(data, { durable: false, signal: ending });
  try {
    return await work({
      address: cluster.address,
      environment: { HEURISTOR_TEST_DATABASE: cluster.address },
    });
  } finally {
    await cluster.stop();
  }
}

/** All checks and tests. */
async function all(data: string, ending: AbortSignal): Promise<Tally[]> {
  await buildAll();
  // Once for both runs: what is edited while they go on concerns neither.
  await make((path) => !path.includes('/e2e/others/'));
  return withCluster(data, ending, (cluster) =>
    withSites(cluster.address, async (sites) => {
      const ofAll = { data, ending, environment: { ...cluster.environment, ...sites } };
      // A browser and what it talks to take more than one core. All that needs none has what is left of both until the end.
      const [browser, others] = await Promise.all([
        runJest({ name: 'browser tests', parts: parts(1, 'browser'), ...ofAll }),
        checked(checks).then(async (tallies) => [
          ...tallies,
          await runJest({
            name: 'API and unit tests',
            parts: parts(2, 'api', 'programs', 'unit'),
            ...ofAll,
            isBeside: true,
          }),
        ]),
      ]);
      return [browser, ...others];
    }),
  );
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
