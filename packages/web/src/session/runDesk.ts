import { type Run, type RunPatch, changesBack, runSchema } from '@heuristor/contracts';
import { request } from '../api/client';
import { tell } from '../stores/notices';
import { attemptInOrder } from './attempt';
import { type InvestigationSession } from './investigationSession';

type Host = Pick<InvestigationSession, 'takeRun' | 'history' | 'runs'>;

/** What a change of a run does, in words. */
function runStepName({ name }: Run, patch: RunPatch): string {
  if (patch.name !== undefined) return `rename “${name}”`;
  if (patch.removed !== undefined) return `${patch.removed ? 'remove' : 'put back'} “${name}”`;
  if (patch.shown !== undefined) return `${patch.shown ? 'show' : 'hide'} “${name}”`;
  if (patch.conditions !== undefined) return `change a condition of “${name}”`;
  return `change “${name}”`;
}

/** What people do to runs as such: each is stored at once, and can be taken back. */
export class RunDesk {
  constructor(private readonly host: Host) {}

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

  /** Removes runs together, as one step that can be taken back. */
  async remove(runs: readonly Run[]): Promise<void> {
    const send = (removed: boolean) =>
      attemptInOrder(async () => {
        for (const { id } of runs)
          this.host.takeRun(runSchema.parse(await request('PATCH', `/runs/${id}`, { removed })));
      });
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

  async show(ids: ReadonlySet<string>): Promise<void> {
    const changed = this.host.runs.filter((run) => !run.removed && run.shown !== ids.has(run.id));
    const send = (shown: (run: Run) => boolean) =>
      attemptInOrder(async () => {
        for (const run of changed)
          this.host.takeRun(
            runSchema.parse(await request('PATCH', `/runs/${run.id}`, { shown: shown(run) })),
          );
      });
    if (changed.length === 0 || (await send(({ id }) => ids.has(id))) === false) return;
    this.host.history.push({
      name: 'show other runs',
      undo: () => void send(({ id }) => !ids.has(id)),
      redo: () => void send(({ id }) => ids.has(id)),
    });
  }
}
