import { type RecorderStatus, type SpotStatus } from '@heuristor/contracts';
import { raw } from 'objection';
import { type Logger } from 'pino';
import { type Bus } from '../bus';
import { InvestigationModel } from '../models/investigation';
import { livesIn } from './processLease';

/** What the server does that is in no run yet: a restart ends it, and nothing that was stored would tell. */
type Doing = { kind: 'waiting' } | { kind: 'sweep'; taken: number; planned: number };

const isWaiting = ({ phase }: RecorderStatus) => phase === 'waiting' || phase === 'countdown';

/**
 * Turns what was under way in processes whose lease ran out into words for whoever opens the investigation next.
 * @returns how much there was
 */
export async function endWhatWasUnderWay(): Promise<number> {
  return InvestigationModel.transaction(async (transaction) => {
    const found = await InvestigationModel.query(transaction)
      .whereNotNull('underWay')
      .whereRaw(`not ${livesIn('"underWayBy"')}`)
      .select('id', 'underWay')
      .forUpdate()
      .skipLocked();
    for (const { id, underWay } of found)
      await InvestigationModel.query(transaction)
        .findById(id)
        .patch({ underWay: null, underWayBy: null, endedByRestart: wordsFor(underWay as Doing) });
    return found.length;
  });
}

const wordsFor = (doing: Doing): string =>
  doing.kind === 'waiting'
    ? 'A run was waiting here to begin when the server was restarted; it was cancelled. Press Record again.'
    : `A sweep was under way here when the server was restarted: it ended after ${doing.taken} of ${doing.planned} readings. What was read is kept.`;

/** What a restart has ended in an investigation, in words; null where there is nothing that nobody was told yet. */
export async function endedByRestart(investigationId: string): Promise<string | null> {
  const found = await InvestigationModel.query().findById(investigationId).select('endedByRestart');
  return found?.endedByRestart ?? null;
}

/** Somebody was told. */
export async function forgetWhatEnded(investigationId: string): Promise<void> {
  await InvestigationModel.query().findById(investigationId).patch({ endedByRestart: null });
}

/** Keeps in the database what is under way, each investigation's changes one after the other. */
export class UnderWay {
  private readonly doing = new Map<string, { recorder: Doing | null; spots: Doing | null }>();
  private readonly writing = new Map<string, Promise<void>>();
  private hasEnded = false;

  private readonly process: string;
  private readonly log: Logger;

  constructor({ bus, process, log }: { bus: Bus; process: string; log: Logger }) {
    this.process = process;
    this.log = log;
    bus.on('recorder', (id, status) => this.recorderChanged(id, status));
    bus.on('spots', (id, status) => this.spotsChanged(id, status));
    // Others may have said that it ended, since this process was not heard of for a while.
    bus.on('lapsed', () => this.doing.forEach((_, id) => this.write(id, { endedByRestart: null })));
  }

  private recorderChanged(id: string, status: RecorderStatus): void {
    this.change(id, 'recorder', isWaiting(status) ? { kind: 'waiting' } : null);
  }

  private spotsChanged(id: string, status: SpotStatus): void {
    const { taken, planned } = status.phase === 'sweeping' ? status : { taken: 0, planned: 0 };
    this.change(id, 'spots', status.phase === 'sweeping' ? { kind: 'sweep', taken, planned } : null);
  }

  /** From here on the server ends: what ends with it stays written down. */
  async close(): Promise<void> {
    this.hasEnded = true;
    // A database that hangs must not keep the server from ending.
    await Promise.race([
      Promise.allSettled(this.writing.values()),
      new Promise((resolve) => setTimeout(resolve, 500).unref()),
    ]);
  }

  private change(id: string, by: 'recorder' | 'spots', now: Doing | null): void {
    if (this.hasEnded) return;
    const known = this.doing.get(id) ?? { recorder: null, spots: null };
    if (JSON.stringify(known[by]) === JSON.stringify(now)) return;
    this.doing.set(id, { ...known, [by]: now });
    this.write(id);
  }

  private write(id: string, besides: { endedByRestart?: null } = {}): void {
    const { spots = null, recorder = null } = this.doing.get(id) ?? {};
    const doing = spots ?? recorder;
    if (doing === null) this.doing.delete(id);
    const write = async () => {
      try {
        await InvestigationModel.query()
          .findById(id)
          .patch({
            underWay: doing === null ? null : raw('?::jsonb', [JSON.stringify(doing)]),
            underWayBy: doing === null ? null : this.process,
            ...(doing === null ? {} : besides),
          });
      } catch (error) {
        // It is only lacking where the server is started anew while the database is away.
        this.log.warn({ error: String(error) }, 'what is under way was not written down');
      }
    };
    const before = this.writing.get(id) ?? Promise.resolve();
    const mine = before.then(write).then(() => {
      if (this.writing.get(id) === mine) this.writing.delete(id);
    });
    this.writing.set(id, mine);
  }
}
