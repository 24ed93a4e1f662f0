import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { PlainFault, say } from './plain';

const sources = [
  'packages/core',
  'packages/contracts',
  'packages/evaluation',
  'packages/web',
  'package-lock.json',
];

function fingerprint(): string {
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

/** Builds the web application where its sources have changed since the last time. @throws PlainFault */
export function buildWeb(): void {
  const mark = 'packages/web/dist/.built-from';
  const now = fingerprint();
  if (existsSync(mark) && readFileSync(mark, 'utf8') === now) return;
  say('Building the web application …');
  const { status, stdout, stderr } = spawnSync('npx', ['vite', 'build', '--logLevel', 'warn'], {
    cwd: 'packages/web',
    encoding: 'utf8',
  });
  if (status !== 0) throw new PlainFault(`The web application could not be built:\n${stdout}${stderr}`);
  mkdirSync(dirname(mark), { recursive: true });
  writeFileSync(mark, now);
}
