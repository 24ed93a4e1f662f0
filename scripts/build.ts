import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { type Plugin, build } from 'esbuild';
import { PlainFault, say } from './plain';

/** Something that is made of sources, and made anew when one of them has changed. */
interface Made {
  called: string;
  sources: string[];
  /** Tells of which state of the sources it was made. */
  mark: string;
  make(): Promise<void>;
}

function fingerprint(sources: readonly string[]): string {
  const hash = createHash('sha256');
  const visit = (path: string) => {
    const stat = statSync(path);
    if (stat.isDirectory()) {
      for (const name of readdirSync(path).sort())
        if (name !== 'dist' && name !== 'node_modules') visit(join(path, name));
    } else hash.update(`${path}:${stat.size}:`).update(readFileSync(path));
  };
  sources.forEach(visit);
  return hash.digest('hex');
}

async function makeWhereChanged({ called, sources, mark, make }: Made): Promise<void> {
  const now = fingerprint(sources);
  if (existsSync(mark) && readFileSync(mark, 'utf8') === now) return;
  say(`Building ${called} …`);
  rmSync(mark, { force: true });
  await make();
  mkdirSync(dirname(mark), { recursive: true });
  writeFileSync(mark, now);
}

const shared = ['packages/core', 'packages/contracts', 'packages/evaluation', 'package-lock.json'];

const web: Made = {
  called: 'the web application',
  sources: [...shared, 'packages/web'],
  mark: 'packages/web/dist/.built-from',
  async make() {
    const { status, stdout, stderr } = spawnSync('npx', ['vite', 'build', '--logLevel', 'warn'], {
      cwd: 'packages/web',
      encoding: 'utf8',
    });
    if (status !== 0) throw new PlainFault(`The web application could not be built:\n${stdout}${stderr}`);
  },
};

/** Packages of others are loaded as they are; ours become part of the program. */
const othersStayOutside: Plugin = {
  name: 'others stay outside',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === 'entry-point' || path.startsWith('@heuristor/') ? undefined : { path, external: true },
    ),
};

/** Programs of a package: the one that is started, and those of its threads. */
const program = (name: string, called: string, entries: string[]): Made => ({
  called,
  sources: [...shared, `packages/${name}`, 'scripts/build.ts'],
  mark: `packages/${name}/dist/.built-from`,
  async make() {
    rmSync(`packages/${name}/dist`, { recursive: true, force: true });
    await build({
      entryPoints: entries.map((entry) => `packages/${name}/src/${entry}.ts`),
      outbase: `packages/${name}/src`,
      outdir: `packages/${name}/dist`,
      bundle: true,
      format: 'esm',
      platform: 'node',
      target: 'node20',
      sourcemap: true,
      sourcesContent: false,
      plugins: [othersStayOutside],
      logLevel: 'error',
    });
  },
});

const all: Made[] = [
  web,
  program('server', 'the server', [
    'main',
    'evaluation/worker',
    'imports/worker',
    'photographs/process',
    'films/process',
  ]),
  program('stand-ins', 'the simulated sensors', ['main']),
  program('bridge', 'the bridge to serial ports', ['main']),
];

/** Builds the web application and the programs where their sources have changed since the last time. @throws PlainFault */
export async function buildAll(): Promise<void> {
  for (const made of all) await makeWhereChanged(made);
}
