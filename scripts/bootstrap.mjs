// What a fresh machine lacks is brought in here, with nothing but Node's own modules: npm packages, and PostgreSQL and
// Chromium from Debian's packages. Then the wanted script runs.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
process.chdir(root);

const say = (text) => process.stdout.write(`${text}\n`);
const stop = (text) => {
  process.stderr.write(`\n${text}\n`);
  process.exit(1);
};

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19))
  stop(
    `Heuristor needs Node 20.19 or newer; this is ${process.version}. Install a newer Node and start again.`,
  );

/** Installs npm packages when the lock file has changed since the last time. */
function installNpmPackages() {
  const lock = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  const mark = join('node_modules', '.heuristor-lock');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  say('Installing npm packages …');
  // Not "npm ci": it insists on entries for other systems' binaries, which npm itself leaves out of the lock file.
  const { status } = spawnSync(
    'npm',
    ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'],
    {
      stdio: 'inherit',
    },
  );
  if (status !== 0)
    stop('The npm packages could not be installed. Check the connection and run the same command again.');
  mkdirSync('node_modules', { recursive: true });
  writeFileSync(mark, lock);
}

const hasPostgres = () =>
  existsSync('/usr/lib/postgresql') &&
  readdirSync('/usr/lib/postgresql').some((version) =>
    existsSync(`/usr/lib/postgresql/${version}/bin/initdb`),
  );
const hasPython = () => spawnSync('python3', ['--version'], { stdio: 'ignore' }).status === 0;
const hasOffice = () => existsSync('/usr/bin/soffice');
const hasWriter = () => existsSync('/usr/lib/libreoffice/program/libswlo.so');
// Debian's packages belong to Debian's own Python, whichever else comes first on the path.
const hasPandas = () =>
  spawnSync('/usr/bin/python3', ['-c', 'import pandas, openpyxl'], { stdio: 'ignore' }).status === 0;
const hasSocat = () => existsSync('/usr/bin/socat');
const hasChromium = () =>
  existsSync('/usr/bin/chromium-headless-shell') || existsSync(process.env.CHROMIUM ?? '/nowhere');

/** Installs PostgreSQL and Chromium where they are missing. */
function installDebianPackages() {
  const [, , script] = process.argv;
  // Only the tests join serial ports to each other, and run the example in Python.
  const isTest = ['scripts/test.ts', 'scripts/faults/main.ts'].includes(script);
  const isOutside = script === 'scripts/testOutside.ts';
  const missing = [
    ...(hasPostgres() ? [] : ['postgresql']),
    ...(hasChromium() ? [] : ['chromium-headless-shell']),
    ...(hasSocat() || !isTest ? [] : ['socat']),
    ...(hasPython() || !isTest ? [] : ['python3']),
    ...(hasOffice() || !isOutside ? [] : ['libreoffice-calc', 'libreoffice-draw']),
    ...(hasWriter() || !isOutside ? [] : ['libreoffice-writer']),
    ...(hasPandas() || !isOutside ? [] : ['python3-pandas', 'python3-openpyxl']),
  ];
  if (missing.length === 0) return;
  const isRoot = process.getuid?.() === 0;
  const sudo = isRoot ? [] : ['sudo', '-n'];
  const line = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  const byHand = `Run this line as an administrator, then start again:\n\n  ${isRoot ? '' : 'sudo '}sh -c '${line}'\n`;
  const may = isRoot || spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0;
  if (!may || !existsSync('/usr/bin/apt-get')) stop(`Heuristor needs ${missing.join(' and ')}. ${byHand}`);
  say(`Installing ${missing.join(' and ')} from Debian's packages …`);
  // Debian makes and starts a cluster of its own with the package; ours is private, so tell it not to.
  const quiet =
    'mkdir -p /etc/postgresql-common && test -e /etc/postgresql-common/createcluster.conf || echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.conf';
  const steps = missing.includes('postgresql') ? `${quiet}; ${line}` : line;
  const [command, ...rest] = [...sudo, 'env', 'DEBIAN_FRONTEND=noninteractive', 'sh', '-c', steps];
  const { status } = spawnSync(command, rest, { stdio: ['ignore', 'ignore', 'inherit'] });
  if (status !== 0 || !hasPostgres() || !hasChromium())
    stop(`The packages could not be installed. ${byHand}`);
}

installNpmPackages();
installDebianPackages();

const [script, ...args] = process.argv.slice(2);
const child = spawn(process.execPath, ['--import', 'tsx', script, ...args], { stdio: 'inherit' });
// The terminal sends Ctrl-C to the whole group; the script itself ends its children in order.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    if (signal !== 'SIGINT') child.kill(signal);
  });
// npm ends without a word to its children when it is told to; then this is the one who tells them.
const parent = process.ppid;
setInterval(() => {
  if (process.ppid !== parent) child.kill('SIGTERM');
}, 500).unref();
child.on('exit', (code, signal) => process.exit(code ?? (signal === null ? 1 : 0)));
