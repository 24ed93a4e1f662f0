import { execFile, spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { promisify } from 'node:util';
import { buildWeb } from './build';
import { startCluster } from './cluster';
import { PlainFault, runScript, say } from './plain';

interface Tally {
  passed: number;
  failed: number;
}

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

/**
 * A run of Jest, counted test by test; a run that brings no report counts as one failure. One that goes on beside another says what
 * it says at its end, so that they do not talk into each other.
 */
async function jest(
  name: string,
  parts: string[],
  data: string,
  environment: Record<string, string>,
  isBeside = false,
): Promise<Tally> {
  if (!isBeside) say(`\n── ${name}`);
  const report = join(data, `${name}.json`);
  rmSync(report, { force: true });
  const child = spawn('npx', ['jest', ...parts, '--json', `--outputFile=${report}`, '--forceExit'], {
    stdio: ['ignore', 'ignore', 'pipe'],
    env: { ...process.env, ...environment },
  });
  let said = '';
  child.stderr.on('data', (text: Buffer) => {
    if (isBeside) said += text.toString();
    else process.stderr.write(text);
  });
  const status = await new Promise<number | null>((resolve) => child.once('close', resolve));
  if (isBeside) say(`\n── ${name}\n${said}`);
  if (!existsSync(report)) return { passed: 0, failed: 1 };
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(report, 'utf8'),
  ) as {
    numPassedTests: number;
    numFailedTests: number;
    numRuntimeErrorTestSuites: number;
  };
  const failed = numFailedTests + numRuntimeErrorTestSuites;
  return { passed: numPassedTests, failed: failed === 0 && status !== 0 ? 1 : failed };
}

/** Browser tests in which no device is timed: they go on beside those of the API, which mostly wait. */
const still = 'e2e/(files|hands|numbers|reading|sheets|workings)\\.test';

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
    .filter((path) => /\.test\.tsx?$/.test(path) && !path.includes('node_modules'))
    .filter((path) => named.some((words) => path.includes(words)));
  const browser = tests.filter((path) => path.startsWith('e2e/'));
  const unit = tests.filter(isUnit);
  return { unit, browser, api: tests.filter((path) => !browser.includes(path) && !unit.includes(path)) };
}

const unitOnly = ['--config', 'jest.config.cjs', '--selectProjects', 'unit', '--maxWorkers', '2'];
const apiOnly = ['--config', 'jest.config.cjs', '--selectProjects', 'api', '--maxWorkers', '1'];
const browserOnly = ['--config', 'jest.e2e.config.cjs'];

/** The tests that were named, each with what it needs and nothing else. @throws PlainFault where there are none */
async function some(named: readonly string[], data: string, ending: AbortSignal): Promise<Tally[]> {
  const { unit, api, browser } = found(named);
  if (unit.length + api.length + browser.length === 0)
    throw new PlainFault(`No test has “${named.join('” or “')}” in its path.`);
  const tallies: Tally[] = [];
  const run = async (name: string, args: string[], tests: string[], environment: Record<string, string>) => {
    if (tests.length > 0)
      tallies.push(await jest(name, [...args, '--runTestsByPath', ...tests], data, environment));
  };
  await run('unit tests', unitOnly, unit, {});
  if (api.length + browser.length === 0) return tallies;
  buildWeb();
  const cluster = await startCluster(data, { durable: false, signal: ending });
  try {
    const environment = { HEURISTOR_TEST_DATABASE: cluster.address };
    await run('API tests', apiOnly, api, environment);
    await run('browser tests', browserOnly, browser, environment);
  } finally {
    await cluster.stop();
  }
  return tallies;
}

/** All checks and tests. */
async function all(data: string, ending: AbortSignal): Promise<Tally[]> {
  const tallies = await checked(checks);
  buildWeb();
  const cluster = await startCluster(data, { durable: false, signal: ending });
  try {
    const environment = { HEURISTOR_TEST_DATABASE: cluster.address };
    // What only computes can do so twice at once; what times devices has the machine to itself.
    tallies.push(await jest('unit tests', unitOnly, data, environment));
    tallies.push(
      ...(await Promise.all([
        jest('API tests', apiOnly, data, environment),
        jest('still browser tests', [...browserOnly, '--testPathPatterns', still], data, environment, true),
      ])),
    );
    tallies.push(
      await jest('browser tests', [...browserOnly, '--testPathIgnorePatterns', still], data, environment),
    );
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
