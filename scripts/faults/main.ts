import { spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { PlainFault, runScript, say } from '../plain';
import { type SeededFault, seededFaults } from './list';

/** Runs tests by parts of their paths. @returns how many failed, and how many there were */
async function failing(
  tests: readonly string[],
  ending: AbortSignal,
): Promise<{ failed: number; all: number }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/test.ts', ...tests], {
    stdio: ['ignore', 'pipe', 'ignore'],
    signal: ending,
    killSignal: 'SIGTERM',
  });
  let said = '';
  child.stdout.on('data', (text: Buffer) => (said += text.toString()));
  await new Promise((resolve) => child.once('close', resolve));
  const [, passed, failed] = /(\d+) passed, (\d+) failed\s*$/.exec(said) ?? [];
  if (passed === undefined) throw new PlainFault(`The tests ${tests.join(' ')} did not run:\n${said}`);
  return { failed: Number(failed), all: Number(passed) + Number(failed) };
}

/** Puts a fault into the sources for as long as its tests run. @returns whether they noticed */
async function isNoticed(fault: SeededFault, ending: AbortSignal): Promise<boolean> {
  const before = readFileSync(fault.file, 'utf8');
  if (before.split(fault.find).length !== 2)
    throw new PlainFault(
      `“${fault.find}” does not stand in ${fault.file} once. Mend scripts/faults/list.ts.`,
    );
  const putBack = () => writeFileSync(fault.file, before);
  process.once('exit', putBack);
  try {
    writeFileSync(
      fault.file,
      before.replace(fault.find, () => fault.replace),
    );
    const { failed, all } = await failing(fault.tests, ending);
    // Where all fail, a script may not have been made at all; that is no test that noticed.
    return failed > 0 && failed < all;
  } finally {
    putBack();
    process.off('exit', putBack);
  }
}

/** Whether the tests notice faults that are put into the sources one after the other; the parts of their words that are named, or all. */
runScript(async (ending) => {
  const named = process.argv.slice(2);
  const wanted = seededFaults.filter(
    ({ what }) => named.length === 0 || named.some((words) => what.includes(words)),
  );
  const tests = [...new Set(wanted.flatMap((fault) => fault.tests))];
  const { failed } = await failing(tests, ending);
  if (failed > 0) throw new PlainFault('Some of these tests fail without a fault. Mend that first.');
  let noticed = 0;
  for (const fault of wanted) {
    const isSeen = await isNoticed(fault, ending);
    if (isSeen) noticed++;
    say(`${isSeen ? 'noticed ' : 'MISSED  '} ${fault.what}`);
  }
  say(`\n${noticed} of ${wanted.length} noticed`);
  process.exit(noticed === wanted.length ? 0 : 1);
});
