import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { packCore } from './packCore';

// The core can be used by others as its README says: packed, installed without a network into an empty folder, compiled and run.

const folder = mkdtempSync(join(tmpdir(), 'core-user-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const run = (program: string, ...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(program, args, { cwd: folder, encoding: 'utf8' });
  if (status !== 0) throw new Error(`${program}: ${stdout}${stderr}`);
  return stdout;
};

test('the example of its README compiles and runs where only the package is', async () => {
  const packed = await packCore(join(folder, 'made'));
  writeFileSync(join(folder, 'package.json'), JSON.stringify({ name: 'user', type: 'module' }));
  run('npm', 'install', '--offline', '--ignore-scripts', '--no-audit', '--no-fund', packed);
  const [, example] = /```ts\n([\s\S]*?)```/.exec(readFileSync('packages/core/README.md', 'utf8')) ?? [];
  expect(example).toContain('evaluate(workings, run)');
  const further = `
import { arrayOf, readTable } from '@heuristor/core/tables';
if (outcome?.kind !== 'results') throw new Error('no results');
console.log(outcome.results.find(({ key }) => key === 'period')?.quantity.value, typeof readTable, typeof arrayOf);
`;
  writeFileSync(join(folder, 'example.ts'), `${example}${further}`);
  writeFileSync(
    join(folder, 'tsconfig.json'),
    JSON.stringify({
      compilerOptions: {
        strict: true,
        target: 'es2022',
        module: 'esnext',
        moduleResolution: 'bundler',
        types: [],
      },
      files: ['example.ts'],
    }),
  );
  run(process.execPath, resolve('node_modules/typescript/bin/tsc'));
  const [period, ...kinds] = run(process.execPath, 'example.js').trim().split(' ');
  // 5.29 in a second, of a full turn.
  expect(Number(period)).toBeCloseTo((2 * Math.PI) / 5.29, 9);
  expect(kinds).toEqual(['function', 'function']);
}, 120_000);
