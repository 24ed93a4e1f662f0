import { spawnSync } from 'node:child_process';
import { copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build } from 'esbuild';
import { PlainFault } from './plain';

const source = 'packages/core';

/** @throws PlainFault with what the program said */
function run(program: string, args: readonly string[], folder: string): string {
  const { status, stdout, stderr } = spawnSync(program, args, { cwd: folder, encoding: 'utf8' });
  if (status !== 0) throw new PlainFault(`${program} ${args.join(' ')}:\n${stdout}${stderr}`);
  return stdout;
}

/**
 * Packs the core for others: built, with all that it needs in it, its types and its README.
 * @param folder a new or old folder in which the package is made
 * @returns the path of the file that `npm install` takes
 * @throws PlainFault
 */
export async function packCore(folder: string): Promise<string> {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  await build({
    entryPoints: { index: join(source, 'src/index.ts'), tables: join(source, 'src/tables/index.ts') },
    outdir: join(folder, 'dist'),
    bundle: true,
    splitting: true,
    format: 'esm',
    // What it stands on needs nothing of Node either.
    platform: 'browser',
    target: 'es2022',
    // Licences of what is in it stand beside it.
    legalComments: 'linked',
    logLevel: 'error',
  });
  const settings = resolve(folder, 'tsconfig.json');
  writeFileSync(
    settings,
    JSON.stringify({
      extends: resolve('tsconfig.json'),
      compilerOptions: {
        noEmit: false,
        declaration: true,
        emitDeclarationOnly: true,
        rootDir: resolve(source, 'src'),
        outDir: resolve(folder, 'dist/types'),
        typeRoots: [resolve('node_modules/@types')],
      },
      include: [resolve(source, 'src')],
      exclude: [resolve(source, 'src/**/*.test.ts'), resolve(source, 'src/testing')],
    }),
  );
  run('npx', ['tsc', '-p', settings], '.');
  rmSync(settings);
  const { name, version } = JSON.parse(readFileSync(join(source, 'package.json'), 'utf8')) as {
    name: string;
    version: string;
  };
  const exported = (types: string, file: string) => ({
    types: `./dist/types/${types}`,
    default: `./dist/${file}`,
  });
  writeFileSync(
    join(folder, 'package.json'),
    JSON.stringify({
      name,
      version,
      type: 'module',
      sideEffects: false,
      exports: {
        '.': exported('index.d.ts', 'index.js'),
        './tables': exported('tables/index.d.ts', 'tables.js'),
      },
      files: ['dist'],
    }),
  );
  copyFileSync(join(source, 'README.md'), join(folder, 'README.md'));
  const [packed] = run('npm', ['pack', '--silent'], folder).trim().split('\n').slice(-1);
  return resolve(folder, packed);
}
