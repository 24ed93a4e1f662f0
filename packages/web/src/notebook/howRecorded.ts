import { type Channel, type LeftOutCount, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { beginningWords, endingWords } from '../recording/plan/planWords';
import { appliedWords, samplingWords } from '../runs/channelWords';

/**
 * How runs were recorded, in sentences: sensors by their codes, rates, zero and calibration, how a run began and ended, and what was
 * left out, by hand or because it is no measurement. What is the same for several runs is said once.
 * @param leftOut readings that are no measurement, by run, as far as that was asked
 */
export function howRecorded(
  runs: readonly Run[],
  { aside, runs: looks }: Pick<WorkingsDocument, 'aside' | 'runs'>,
  leftOut: ReadonlyMap<string, readonly LeftOutCount[]> = new Map(),
): string[] {
  const channels = grouped(
    runs.flatMap((run) => run.channels.map((channel) => [channelWords(channel), run] as const)),
  );
  const ways = grouped(
    runs.flatMap((run) =>
      run.plan === null || run.origin === 'imported'
        ? []
        : [
            [
              `began ${beginningWords(run.plan.begin, [])} and ended ${endingWords(run.plan.end, [])}`,
              run,
            ] as const,
          ],
    ),
  );
  const files = runs.filter(({ origin }) => origin === 'imported');
  const outs = runs.flatMap((run) => {
    const count = aside
      .filter((one) => one.run === run.id)
      .flatMap(({ ranges }) => ranges)
      .reduce((sum, [first, past]) => sum + past - first, 0);
    return count === 0
      ? []
      : [`${runWords([run])}: ${count} ${count === 1 ? 'reading was' : 'readings were'} set aside by hand.`];
  });
  return [
    ...channels.map(([words, of]) => `${words}${of.length === runs.length ? '' : ` (${runWords(of)})`}.`),
    ...ways.map(([words, of]) => `${capital(runWords(of))} ${words}.`),
    ...(files.length > 0
      ? [`${capital(runWords(files))} ${files.length === 1 ? 'was' : 'were'} brought in from a file.`]
      : []),
    ...outs,
    ...runs.flatMap((run) => {
      const isKept = looks.some((look) => look.run === run.id && look.keepPinned === true);
      return (leftOut.get(run.id) ?? []).flatMap((count) => leftOutWords(run, count, isKept));
    }),
    ...(leftOut.size > 0 && runs.some(({ id, state }) => state === 'ended' && !leftOut.has(id))
      ? ['How many readings of earlier runs are no measurement was not counted.']
      : []),
    ...runs.flatMap(({ notes, number }) => notes.map((note) => `Run ${number}: ${note}`)),
  ];
}

function channelWords({ symbol, quantity, unit, deviceCode, sampling, applied }: Channel): string {
  const printed = printedUnit(parseUnit(unit));
  const named = quantity === symbol || quantity === '' ? symbol : `${capital(quantity)} ${symbol}`;
  const parts = [
    deviceCode === null ? null : `sensor ${deviceCode}`,
    samplingWords(sampling),
    ...appliedWords(applied),
  ].filter((part) => part !== null);
  return `${named}${printed === '' ? '' : ` in ${printed}`}: ${parts.join('; ')}`;
}

/** How many readings of a channel are no measurement, and what became of them. */
function leftOutWords(run: Run, { channel: id, pinned, strays }: LeftOutCount, isKept: boolean): string[] {
  const channel = run.channels.find((one) => one.id === id);
  if (channel === undefined || pinned + strays === 0) return [];
  const parts = [
    ...(pinned > 0 ? [`${pinned} ${pinned === 1 ? 'reading' : 'readings'} at a limit of the sensor`] : []),
    ...(strays > 0 ? [`${strays} wrong ${strays === 1 ? 'echo' : 'echoes'}`] : []),
  ];
  const were = pinned + strays === 1 ? 'was' : 'were';
  return [
    `Run ${run.number}, ${channel.symbol}: ${parts.join(' and ')} ${were} ${isKept ? 'counted in spite of it' : 'left out, since that is no measurement'}.`,
  ];
}

/** “run 2”, or “runs 1, 3 and 4”. */
function runWords(runs: readonly Run[]): string {
  const numbers = [...new Set(runs.map(({ number }) => number))];
  const last = numbers.at(-1);
  return numbers.length === 1 ? `run ${last}` : `runs ${numbers.slice(0, -1).join(', ')} and ${last}`;
}

/** What is said of runs, each with those of which it is said, in the order in which it was said first. */
function grouped(said: readonly (readonly [string, Run])[]): [string, Run[]][] {
  const by = new Map<string, Run[]>();
  for (const [words, run] of said) by.set(words, [...(by.get(words) ?? []), run]);
  return [...by];
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
