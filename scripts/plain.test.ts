import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const plain = pathToFileURL(join(__dirname, 'plain.ts')).href;

/** A script that has something to store when it is told to end. */
const script = (stored: string) => `
  import { writeFileSync } from 'node:fs';
  import { runScript, say } from ${JSON.stringify(plain)};
  runScript(async (told) => {
    const kept = setInterval(() => undefined, 1000);
    await new Promise((resolve) => {
      told.addEventListener('abort', resolve);
      say('here');
    });
    say('Ending …');
    await new Promise((resolve) => setTimeout(resolve, 100));
    writeFileSync(${JSON.stringify(stored)}, 'stored');
    clearInterval(kept);
    process.exit(0);
  });
`;

test.each(['SIGINT', 'SIGTERM', 'SIGHUP'] as const)(
  'a script whose window was closed stores what it has when it is told to end by %s',
  async (signal) => {
    const stored = join(mkdtempSync(join(tmpdir(), 'heuristor-')), 'stored');
    const child = spawn(
      process.execPath,
      ['--import', 'tsx', '--input-type=module', '--eval', script(stored)],
      {
        stdio: ['ignore', 'pipe', 'pipe'],
      },
    );
    await new Promise((resolve) => child.stdout.once('data', resolve));
    child.stdout.destroy();
    child.stderr.destroy();
    child.kill(signal);
    const status = await new Promise((resolve) => child.once('exit', resolve));
    expect(status).toBe(0);
    expect(existsSync(stored)).toBe(true);
  },
);
