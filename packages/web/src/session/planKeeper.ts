import { type PlanPatch } from '@heuristor/contracts';
import { type StoreApi } from 'zustand/vanilla';
import { request } from '../api/client';
import { attemptInOrder } from './attempt';
import { type History } from './history';
import { type Documents } from './state';

type NamedPlan = Pick<Documents, 'name' | 'plan'>;
type NamePatch = { name?: string; plan?: PlanPatch };

/** The name and the plan of an investigation: shown as changed at once, stored in order, and put back where that is refused. */
export class PlanKeeper {
  /** Own changes that are on their way. */
  private changes = 0;
  private heard: NamedPlan | null = null;

  constructor(
    private readonly path: string,
    private readonly history: History,
    private readonly documents: StoreApi<Documents>,
  ) {}

  async rename(name: string): Promise<void> {
    const before = this.documents.getState().name;
    await this.send({ name: before }, { name });
  }

  async change(patch: PlanPatch): Promise<void> {
    const { plan } = this.documents.getState();
    const before = Object.fromEntries(
      Object.keys(patch).map((key) => [key, plan[key as keyof PlanPatch]]),
    ) as PlanPatch;
    await this.send({ plan: before }, { plan: patch });
  }

  /** Takes name and plan as the server has them; while an own change is on its way, they wait for it. */
  hear(heard: NamedPlan): void {
    this.heard = heard;
    this.takeHeard();
  }

  private async send(before: NamePatch, after: NamePatch): Promise<void> {
    const put = (patch: NamePatch) => {
      const { name, plan } = this.documents.getState();
      this.documents.setState({ name: patch.name ?? name, plan: { ...plan, ...patch.plan } });
    };
    const store = async (patch: NamePatch, back: NamePatch) => {
      put(patch);
      this.changes++;
      const isDone = await attemptInOrder(() => request('PATCH', this.path, patch));
      this.changes--;
      if (!isDone) put(back);
      this.takeHeard();
      return isDone;
    };
    if (!(await store(after, before))) return;
    this.history.push({ undo: () => void store(before, after), redo: () => void store(after, before) });
  }

  private takeHeard(): void {
    if (this.heard === null || this.changes > 0) return;
    this.documents.setState(this.heard);
    this.heard = null;
  }
}
