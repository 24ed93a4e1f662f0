import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import * as core from '@heuristor/core';
import { randomRun, randomSheet } from '../../packages/core/src/testing/randomSheets';
import { channelsOf, conditionsOf } from '../demo/channelsOf';
import { experiments } from '../demo/index';
import { buoyStudy, lifeboatStudy, motionData } from '../demo/motionStudies';
import { PlainFault, runScript, say } from '../plain';
import { type Said, differencesOf } from './differences';

const randomSheets = 500;

interface Case {
  title: string;
  workings: core.Workings;
  run: core.RunData;
}

/** The sheets of the demo over its runs, and random ones with seeds that are fixed. */
function* cases(): Generator<Case> {
  for (const experiment of experiments)
    for (const run of experiment.runs)
      yield {
        title: `${experiment.name}, ${run.name}`,
        workings: experiment.workings,
        run: { id: run.name, channels: channelsOf(run), conditions: conditionsOf(run, experiment) },
      };
  for (const { name, workings, runs } of [lifeboatStudy, buoyStudy])
    for (const run of runs)
      yield { title: `${name}, ${run.name}`, workings, run: { id: run.name, channels: motionData(run) } };
  for (let seed = 0; seed < randomSheets; seed++)
    yield { title: `random sheet ${seed}`, workings: { entries: randomSheet(seed) }, run: randomRun(seed) };
}

function git(...words: string[]): string {
  const { status, stdout, stderr } = spawnSync('git', words, { encoding: 'utf8' });
  if (status !== 0) throw new PlainFault(`git ${words.join(' ')}: ${stderr.trim()}`);
  return stdout.trim();
}

const shown = (said: Said | undefined) =>
  said === undefined
    ? 'nothing'
    : typeof said === 'number'
      ? String(Number(said.toPrecision(15)))
      : `“${said}”`;

/** Evaluates the same sheets with the core of another commit and with this one, and lists every number that differs. */
runScript(async () => {
  const [commit] = process.argv.slice(2);
  if (commit === undefined)
    throw new PlainFault(
      'Name the commit to compare with: npm run compare HEAD, or npm run compare 3f2a1c7.',
    );
  const found = spawnSync('git', ['rev-parse', '--verify', '--quiet', `${commit}^{commit}`], {
    encoding: 'utf8',
  });
  const hash = found.stdout.trim();
  if (found.status !== 0) throw new PlainFault(`There is no commit “${commit}” here.`);
  const folder = resolve('.test-data', `compare-${hash.slice(0, 12)}-${process.pid}`);
  mkdirSync(resolve('.test-data'), { recursive: true });
  // Within this folder, so that its packages are found where these are.
  git('worktree', 'add', '--detach', '--quiet', folder, hash);
  try {
    const other = (await import(
      pathToFileURL(resolve(folder, 'packages/core/src/index.ts')).href
    )) as typeof core;
    let sheets = 0;
    let differing = 0;
    let numbers = 0;
    for (const { title, workings, run } of cases()) {
      sheets++;
      const differences = differencesOf(other.evaluate(workings, run), core.evaluate(workings, run));
      if (differences.length === 0) continue;
      differing++;
      numbers += differences.length;
      say(`\n${title}`);
      for (const { entry, what, before, now } of differences) {
        const kind = workings.entries.find(({ id }) => id === entry)?.kind ?? '';
        say(`  ${entry} (${kind}) ${what}: ${shown(before)} → ${shown(now)}`);
      }
    }
    say(`\n${sheets} sheets; ${numbers} differences in ${differing} of them.`);
  } finally {
    git('worktree', 'remove', '--force', folder);
  }
  process.exit(0);
});
