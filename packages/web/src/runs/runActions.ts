import { z } from 'zod';
import {
  type Run,
  type RunLook,
  type RunPatch,
  changesBack,
  runSchema,
  withLooks,
} from '@heuristor/contracts';
import { request } from '../api/client';
import { tell } from '../ui/noticeStore';
import { attemptInOrder } from '../api/attempt';
import { type Host } from '../investigation/host';

type Part = Pick<Host, 'takeRun' | 'history' | 'runs' | 'changeWorkings'>;

/** What a change of a run does, in words. */
function runStepName({ name }: Run, patch: RunPatch): string {
  if (patch.name !== undefined) return `rename “${name}”`;
  if (patch.removed !== undefined) return `${patch.removed ? 'remove' : 'put back'} “${name}”`;
  if (patch.planned !== undefined)
    return `${patch.planned === null ? 'take' : 'put'} “${name}” ${patch.planned === null ? 'out of' : 'into'} the plan`;
  if (patch.conditions !== undefined) return `change a condition of “${name}”`;
  return `change “${name}”`;
}

/** What people do to runs as such, each stored at once, and how they look at them; all of it can be taken back. */
export class RunActions {
  constructor(private readonly host: Part) {}

  /** Changes a run on the server; what people do to runs can be taken back. */
  async change(run: Run, patch: RunPatch): Promise<void> {
    const present = this.host.runs.find(({ id }) => id === run.id) ?? run;
    const { conditions } = patch;
    const before = {
      ...Object.fromEntries(Object.keys(patch).map((key) => [key, present[key as keyof RunPatch]])),
      ...(conditions === undefined ? {} : { conditions: changesBack(present.conditions, conditions) }),
    } as RunPatch;
    const send = (wanted: RunPatch) =>
      attemptInOrder(async () =>
        this.host.takeRun(runSchema.parse(await request('PATCH', `/runs/${run.id}`, wanted))),
      );
    if ((await send(patch)) === false) return;
    this.host.history.push({
      name: runStepName(present, patch),
      undo: () => void send(before),
      redo: () => void send(patch),
    });
  }

  /** Takes copies of runs of other investigations in, as one step that can be taken back. */
  async takeIn(investigation: string, ids: readonly string[]): Promise<boolean> {
    const taken: Run[] = [];
    const isDone = await attemptInOrder(async () => {
      const answer = await request('POST', `/investigations/${investigation}/runs`, { runs: ids });
      taken.push(...z.array(runSchema).parse(answer));
      for (const run of taken) this.host.takeRun(run);
    });
    if (!isDone) return false;
    const send = (removed: boolean) => this.sendRemoved(taken, removed);
    const count = taken.length === 1 ? 'one run' : `${taken.length} runs`;
    this.host.history.push({
      name: `take in ${count}`,
      undo: () => void send(true),
      redo: () => void send(false),
    });
    tell({
      kind: 'news',
      text: `${count} of another investigation ${taken.length === 1 ? 'is' : 'are'} here now, with a note that says where from.`.replace(
        /^o/,
        'O',
      ),
    });
    return true;
  }

  private sendRemoved(runs: readonly Run[], removed: boolean): Promise<boolean> {
    return attemptInOrder(async () => {
      for (const { id } of runs)
        this.host.takeRun(runSchema.parse(await request('PATCH', `/runs/${id}`, { removed })));
    });
  }

  /** Removes runs together, as one step that can be taken back. */
  async remove(runs: readonly Run[]): Promise<void> {
    const send = (removed: boolean) => this.sendRemoved(runs, removed);
    if (!(await send(true))) return;
    const [first] = runs;
    this.host.history.push({
      name: runs.length === 1 ? `remove “${first.name}”` : `remove ${runs.length} runs`,
      undo: () => void send(false),
      redo: () => void send(true),
    });
    tell({
      kind: 'news',
      text:
        runs.length === 1
          ? `“${first.name}” is removed.`
          : `${runs.length} runs are removed, “${first.name}” among them.`,
      action: { label: 'Undo', run: () => this.host.history.undo() },
    });
  }

  /** Shows these runs, and hides the others. */
  show(ids: ReadonlySet<string>): void {
    const changed = this.host.runs.filter((run) => !run.removed && run.shown !== ids.has(run.id));
    if (changed.length === 0) return;
    this.host.changeWorkings((workings) =>
      withLooks(workings, changed, ({ id }) => ({ shown: ids.has(id) })),
    );
  }

  /** Looks at a run otherwise: that is said in the sheet of whoever looks. */
  look(run: Run, look: Partial<RunLook>): void {
    this.host.changeWorkings((workings) => withLooks(workings, [run], () => look));
  }
}
