import { type WorkingsDocument } from '@heuristor/contracts';
import { type JointFit, writeColumns } from '@heuristor/core';
import { type RunPool } from './pool';

/** One relation through the readings of several runs, which different workers may hold. @throws Error that says why it cannot be */
export async function fitTogether(
  pool: RunPool,
  runIds: readonly string[],
  workings: WorkingsDocument,
  entryId: string,
  shared: number[],
): Promise<JointFit> {
  const sets = await Promise.all(runIds.map((id) => pool.demand(id, 'fitPoints', { workings, entryId })));
  const [{ units }] = sets;
  const other = sets.find((set) => set.units !== units);
  if (other !== undefined)
    throw new Error(
      `Some of these runs are of ${units}, others of ${other.units}. Hide those that measure something else.`,
    );
  return pool.demand(runIds[0], 'jointFit', {
    workings,
    entryId,
    sets: sets.map(({ points }) => points),
    shared,
  });
}

/** Runs with their derived series as CSV text; with several runs, every heading begins with the name of its run. */
export async function csvOf(
  pool: Pick<RunPool, 'ask'>,
  runs: readonly { id: string; name: string }[],
  workings: WorkingsDocument,
): Promise<string> {
  const names = distinct(runs.map(({ name }) => name));
  const parts = await Promise.all(
    runs.map(({ id }, i) =>
      pool.ask(id, 'columns', { workings, prefix: runs.length > 1 ? `${names[i]}: ` : '' }),
    ),
  );
  return writeColumns(parts.flatMap((columns) => columns ?? []));
}

/** Names that are all different, so that runs of one name stay apart in a file. */
function distinct(names: readonly string[]): string[] {
  const used = new Set<string>();
  return names.map((wish) => {
    // A colon ends the name in a heading.
    const plain = wish.replaceAll(': ', ' ');
    let name = plain;
    for (let n = 2; used.has(name); n++) name = `${plain} (${n})`;
    used.add(name);
    return name;
  });
}
