const { createHash } = require('node:crypto');
const { existsSync, readFileSync, readdirSync, rmSync, statSync } = require('node:fs');
const { join, relative } = require('node:path');
const { pathToFileURL } = require('node:url');
const { build } = require('esbuild');

// A test with all that it imports becomes one script. In the context that Jest runs tests in, to look up a global is slow, and so
// is to load a module: numerical tests run three times as fast where both are done once. All that will run are made at once, before
// any does; those of another state of the sources are cleared away.

const cache = join(__dirname, 'node_modules', '.cache', 'tests');

/** Globals that numerical code uses all the time. What tests replace (timers, Date) is none of them. */
const constants = [
  'Math',
  'Number',
  'Array',
  'Float32Array',
  'Float64Array',
  'Uint8Array',
  'Uint32Array',
  'Map',
  'Set',
  'Object',
  'NaN',
  'Infinity',
];

/** Files of ours that a test may be or import, with a fingerprint of their state. */
function sources() {
  const hash = createHash('sha256');
  const tests = [];
  const visit = (path) => {
    for (const name of readdirSync(path).sort()) {
      if (name === 'node_modules' || name === 'dist' || name.startsWith('.')) continue;
      const inside = join(path, name);
      const stat = statSync(inside);
      if (stat.isDirectory()) visit(inside);
      else hash.update(`${inside}:${stat.size}:${stat.mtimeMs};`);
      if (isBundled(relative(__dirname, inside))) tests.push(inside);
    }
  };
  for (const part of ['e2e', 'packages', 'scripts']) visit(join(__dirname, part));
  for (const file of ['package-lock.json', 'jest.bundle.cjs'])
    hash.update(readFileSync(join(__dirname, file)));
  return { tests, state: hash.digest('hex') };
}

/** Tests that only compute, and show parts of pages. */
const isUnit = (path) =>
  /^packages\/(contracts|core|evaluation|web)\/.*\.test\.tsx?$/.test(path) ||
  /^scripts\/(compare|demo|faults|pictures)\/.*\.test\.ts$/.test(path);

/** Tests of devices and the database. */
const isApi = (path) => /^packages\/(bridge|server|stand-ins)\/.*\.test\.ts$/.test(path);

/** These, and those that drive a browser. */
const isBundled = (path) => isUnit(path) || isApi(path) || /^e2e\/.*\.test\.ts$/.test(path);

/** Packages that are modules only, which Jest's own loader cannot load. */
const onlyModules = ['p-queue', 'p-timeout'];

/** Packages of others are loaded as they are: many load parts of themselves, or start threads, by their place. */
const othersStayOutside = {
  name: 'others stay outside',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === 'entry-point' || path.startsWith('@heuristor/') || onlyModules.includes(path)
        ? undefined
        : { path, external: true },
    ),
};

/** Where the scripts of the present state of the sources are. */
const folderOf = (state) => join(cache, state.slice(0, 16));

/** Makes the scripts of tests that have none in the present state of the sources. @param isWanted tells of a test whether it will run */
async function make(isWanted) {
  const { tests, state } = sources();
  const folder = folderOf(state);
  process.env.HEURISTOR_TEST_SCRIPTS = folder;
  if (existsSync(cache))
    for (const name of readdirSync(cache))
      if (join(cache, name) !== folder) rmSync(join(cache, name), { recursive: true, force: true });
  const missing = tests.filter((path) => isWanted(path) && !existsSync(madeOf(folder, path)));
  const [api, others] = [true, false].map((wanted) =>
    missing.filter((path) => isApi(relative(__dirname, path)) === wanted),
  );
  // Threads that a test of the server starts are those of the server that was built.
  const built = pathToFileURL(join(__dirname, 'packages/server/dist/main.js')).href;
  const server = { plugins: [othersStayOutside], define: { 'import.meta.url': JSON.stringify(built) } };
  await Promise.all([scriptsOf(api, folder, server), scriptsOf(others, folder, {})]);
}

async function scriptsOf(entryPoints, folder, further) {
  if (entryPoints.length === 0) return;
  await build({
    entryPoints,
    outdir: folder,
    outbase: __dirname,
    bundle: true,
    format: 'cjs',
    platform: 'node',
    target: 'es2022',
    jsx: 'automatic',
    sourcemap: 'external',
    sourcesContent: false,
    loader: { '.css': 'empty' },
    // They load parts of themselves by names that are only known when they run.
    external: ['knex', 'objection', 'pg', 'pino', 'express'],
    banner: { js: `const {${constants.join(',')}} = globalThis;` },
    logLevel: 'error',
    ...further,
  });
}

const madeOf = (folder, path) => join(folder, relative(__dirname, path).replace(/\.tsx?$/, '.js'));

/** The folder of this run: what is edited while tests run does not concern them. */
const ofThisRun = () => process.env.HEURISTOR_TEST_SCRIPTS;

module.exports = {
  make,
  isUnit,
  isApi,
  getCacheKey: (_text, path) => createHash('sha256').update(`${ofThisRun()}:${path}`).digest('hex'),
  process(_text, path) {
    const made = madeOf(ofThisRun(), path);
    return { code: readFileSync(made, 'utf8'), map: readFileSync(`${made}.map`, 'utf8') };
  },
};
