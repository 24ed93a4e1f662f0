import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { buildWeb } from './build';
import { startCluster } from './cluster';
import { runScript, say } from './plain';

interface Tally {
  passed: number;
  failed: number;
}

/** One check of the whole tree; it counts as one test. */
function check(name: string, command: string, args: string[]): Tally {
  say(`\n── ${name}`);
  const { status, stdout, stderr } = spawnSync(command, args, { encoding: 'utf8' });
  if (status === 0) {
    say('ok');
    return { passed: 1, failed: 0 };
  }
  say(`${stdout}${stderr}`);
  return { passed: 0, failed: 1 };
}

/** A run of Jest, counted test by test; a run that brings no report counts as one failure. */
function jest(name: string, parts: string[], data: string, environment: Record<string, string>): Tally {
  say(`\n── ${name}`);
  const report = join(data, `${name}.json`);
  rmSync(report, { force: true });
  const { status } = spawnSync('npx', ['jest', ...parts, '--json', `--outputFile=${report}`, '--forceExit'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, ...environment },
  });
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

runScript(async (ending) => {
  const data = resolve('.test-data');
  mkdirSync(data, { recursive: true });
  const tallies = [
    check('format', 'npx', ['prettier', '--check', '.']),
    check('lint', 'npx', ['eslint', '.']),
    check('types', 'npx', ['tsc', '-p', 'tsconfig.json']),
    check('direction of dependencies', 'npx', [
      'depcruise',
      '--config',
      '.dependency-cruiser.cjs',
      'packages',
      'e2e',
      'scripts',
    ]),
  ];
  buildWeb();
  const cluster = await startCluster(data, { durable: false, signal: ending });
  try {
    const environment = { HEURISTOR_TEST_DATABASE: cluster.address };
    const unit = ['--config', 'jest.config.cjs', '--selectProjects'];
    tallies.push(
      // What only computes can do so twice at once; what times devices has the machine to itself.
      jest('unit tests', [...unit, 'unit', '--maxWorkers', '2'], data, environment),
      jest('API tests', [...unit, 'api', '--maxWorkers', '1'], data, environment),
      jest('browser tests', ['--config', 'jest.e2e.config.cjs'], data, environment),
    );
  } finally {
    await cluster.stop();
  }
  const passed = tallies.reduce((sum, tally) => sum + tally.passed, 0);
  const failed = tallies.reduce((sum, tally) => sum + tally.failed, 0);
  say(`\n${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
});
