import { type Run } from './http';
import { type RunChoice, type WorkingsDocument } from './workings';

/** How many ways there are to draw a run. */
export const runStyleCount = 8;

/** How a run is looked at. */
export interface RunLook {
  shown: boolean;
  /** Place in the row of colours and dashes. */
  style: number;
  /** Whether readings count that are no measurement. */
  keepPinned: boolean;
}

/** How a run is looked at on a sheet: as its owner has chosen, else shown, in the style of its number, without what is no measurement. */
export function lookOf({ id, number }: Pick<Run, 'id' | 'number'>, choices: readonly RunChoice[]): RunLook {
  const { hidden = false, style, keepPinned = false } = choices.find(({ run }) => run === id) ?? {};
  return { shown: !hidden, style: style ?? (number - 1) % runStyleCount, keepPinned };
}

/** A sheet on which runs are looked at otherwise; what is as usual is not in it. */
export function withLooks(
  workings: WorkingsDocument,
  runs: readonly Pick<Run, 'id' | 'number'>[],
  change: (run: Pick<Run, 'id' | 'number'>) => Partial<RunLook>,
): WorkingsDocument {
  const changed = new Map(
    runs.map((run) => {
      const before = lookOf(run, workings.runs);
      return [run.id, choiceOf(run, { ...before, ...change(run) })];
    }),
  );
  const kept = workings.runs.flatMap((choice) => {
    const next = changed.get(choice.run);
    return next === undefined ? [choice] : isUsual(next) ? [] : [next];
  });
  const known = new Set(workings.runs.map(({ run }) => run));
  const added = [...changed.values()].filter((choice) => !known.has(choice.run) && !isUsual(choice));
  return { ...workings, runs: [...kept, ...added] };
}

const choiceOf = (
  { id, number }: Pick<Run, 'id' | 'number'>,
  { shown, style, keepPinned }: RunLook,
): RunChoice => ({
  run: id,
  ...(shown ? {} : { hidden: true as const }),
  ...(style === (number - 1) % runStyleCount ? {} : { style }),
  ...(keepPinned ? { keepPinned: true as const } : {}),
});

const isUsual = (choice: RunChoice): boolean => Object.keys(choice).length === 1;
