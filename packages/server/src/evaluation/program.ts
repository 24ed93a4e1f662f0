import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const packages = ['@heuristor/core', '@heuristor/evaluation'];
let known: string | null = null;

/** Tells this program from every other one that might work out something else: a hash of all that evaluates. */
export function programThatEvaluates(): string {
  if (known !== null) return known;
  const require = createRequire(import.meta.url);
  const hash = createHash('sha256');
  for (const name of packages) {
    const folder = dirname(require.resolve(name));
    const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
      .sort();
    for (const file of files) hash.update(file).update(readFileSync(join(folder, file)));
  }
  return (known = hash.digest('hex'));
}
