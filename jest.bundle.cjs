const { createHash } = require('node:crypto');
const { existsSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } = require('node:fs');
const { join, relative } = require('node:path');
const { build } = require('esbuild');

// A test with all that it imports becomes one script. In the context that Jest runs tests in, to look up a global is slow, and so
// is to load a module: numerical tests run three times as fast where both are done once. All of them are made at once, before any runs.

const folder = join(__dirname, 'node_modules', '.cache', 'tests');
const mark = join(folder, '.made-from');

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
  'isNaN',
  'isFinite',
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
  /^scripts\/(compare|demo|pictures)\/.*\.test\.ts$/.test(path);

/** These, and those that drive a browser. Those of the server load it as it is. */
const isBundled = (path) => isUnit(path) || /^e2e\/.*\.test\.ts$/.test(path);

/** Makes the scripts of all these tests, where anything has changed since they were made. */
async function makeAll() {
  const { tests, state } = sources();
  if (existsSync(mark) && readFileSync(mark, 'utf8') === state) return;
  rmSync(folder, { recursive: true, force: true });
  await build({
    entryPoints: tests,
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
  });
  writeFileSync(mark, state);
}

let state;

module.exports = {
  makeAll,
  isUnit,
  getCacheKey(_text, path) {
    state ??= readFileSync(mark, 'utf8');
    return createHash('sha256').update(`${state}:${path}`).digest('hex');
  },
  process(_text, path) {
    const made = join(folder, relative(__dirname, path).replace(/\.tsx?$/, '.js'));
    return { code: readFileSync(made, 'utf8'), map: readFileSync(`${made}.map`, 'utf8') };
  },
};
