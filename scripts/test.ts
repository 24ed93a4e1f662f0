import { execFile, spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { promisify } from 'node:util';
import { buildWeb } from './build';
import { startCluster } from './cluster';
import { runScript, say } from './plain';

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

runScript(async (ending) => {
  const data = resolve('.test-data');
  mkdirSync(data, { recursive: true });
  const tallies = await checked(checks);
  buildWeb();
  const cluster = await startCluster(data, { durable: false, signal: ending });
  try {
    const environment = { HEURISTOR_TEST_DATABASE: cluster.address };
    const unit = ['--config', 'jest.config.cjs', '--selectProjects'];
    const browser = ['--config', 'jest.e2e.config.cjs'];
    // What only computes can do so twice at once; what times devices has the machine to itself.
    tallies.push(await jest('unit tests', [...unit, 'unit', '--maxWorkers', '2'], data, environment));
    tallies.push(
      ...(await Promise.all([
        jest('API tests', [...unit, 'api', '--maxWorkers', '1'], data, environment),
        jest('still browser tests', [...browser, '--testPathPatterns', still], data, environment, true),
      ])),
    );
    tallies.push(
      await jest('browser tests', [...browser, '--testPathIgnorePatterns', still], data, environment),
    );
  } finally {
    await cluster.stop();
  }
  const passed = tallies.reduce((sum, tally) => sum + tally.passed, 0);
  const failed = tallies.reduce((sum, tally) => sum + tally.failed, 0);
  say(`\n${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
});
