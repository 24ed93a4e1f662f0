import {
  type InvestigationPatch,
  type PlanPatch,
  changesBack,
  withConditionsChanged,
} from '@heuristor/contracts';
import { type StoreApi } from 'zustand/vanilla';
import { request } from '../../api/client';
import { attemptInOrder } from '../../api/attempt';
import { type History } from '../../investigation/history';
import { type Documents } from '../../investigation/state';

type NamedPlan = Pick<Documents, 'name' | 'plan'>;
type NamePatch = Pick<InvestigationPatch, 'name' | 'plan' | 'forNext'>;

/** The name and the plan of an investigation: shown as changed at once, stored in order, and put back where that is refused. */
export class PlanActions {
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
    await this.send('rename the investigation', { name: before }, { name });
  }

  async change(patch: PlanPatch): Promise<void> {
    const { plan } = this.documents.getState();
    const before = Object.fromEntries(
      Object.keys(patch).map((key) => [key, plan[key as keyof PlanPatch]]),
    ) as PlanPatch;
    await this.send('change the plan', { plan: before }, { plan: patch });
  }

  /** Says something of the first run, before it is recorded, or which planned row the next one fills. */
  async sayOfNext(said: NonNullable<InvestigationPatch['forNext']>): Promise<void> {
    const { forNext } = this.documents.getState().plan;
    await this.send(
      said.planned === undefined ? 'change the conditions of the next run' : 'choose the row of the next run',
      {
        forNext: {
          ...(said.group === undefined ? {} : { group: forNext.group }),
          ...(said.planned === undefined ? {} : { planned: forNext.planned }),
          ...(said.conditions === undefined
            ? {}
            : { conditions: changesBack(forNext.conditions, said.conditions) }),
        },
      },
      { forNext: said },
    );
  }

  /** Takes name and plan as the server has them; while an own change is on its way, they wait for it. */
  hear(heard: NamedPlan): void {
    this.heard = heard;
    this.takeHeard();
  }

  /** Stores a change without remembering it for undo. @returns false where it was refused, and put back */
  async store(patch: NamePatch, back: NamePatch): Promise<boolean> {
    this.put(patch);
    this.changes++;
    const isDone = await attemptInOrder(() => request('PATCH', this.path, patch));
    this.changes--;
    if (!isDone) this.put(back);
    this.takeHeard();
    return isDone;
  }

  private async send(name: string, before: NamePatch, after: NamePatch): Promise<void> {
    if (!(await this.store(after, before))) return;
    this.history.push({
      name,
      undo: () => void this.store(before, after),
      redo: () => void this.store(after, before),
    });
  }

  private put(patch: NamePatch): void {
    const { name, plan } = this.documents.getState();
    const { group, conditions, planned } = patch.forNext ?? {};
    const forNext = {
      group: group ?? plan.forNext.group,
      conditions: withConditionsChanged(plan.forNext.conditions, conditions ?? {}),
      planned: planned === undefined ? plan.forNext.planned : planned,
    };
    this.documents.setState({
      name: patch.name ?? name,
      plan: { ...plan, ...patch.plan, forNext },
    });
  }

  private takeHeard(): void {
    if (this.heard === null || this.changes > 0) return;
    this.documents.setState(this.heard);
    this.heard = null;
  }
}
