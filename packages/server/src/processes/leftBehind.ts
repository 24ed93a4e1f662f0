import { type Logger } from 'pino';
import { type Bus } from '../bus';
import { type Queue } from '../queue/queue';
import { markInterruptedRuns } from '../services/runs';
import { endWhatWasUnderWay } from '../services/underWay';

interface Parts {
  bus: Bus;
  queue: Pick<Queue, 'add'>;
  log: Logger;
}

/** What processes have left behind whose lease ran out; looked for whenever the own one is renewed, one time after the other. */
export class LeftBehind {
  private readonly bus: Bus;
  private readonly queue: Pick<Queue, 'add'>;
  private readonly log: Logger;
  private isBusy = false;

  constructor({ bus, queue, log }: Parts) {
    this.bus = bus;
    this.queue = queue;
    this.log = log;
    bus.on('beat', () => void this.lookAgain());
  }

  /** Marks what has ended with its process, and tells it. */
  async seeTo(): Promise<void> {
    const interrupted = await markInterruptedRuns();
    if (interrupted.length > 0)
      this.log.warn(`${interrupted.length} run(s) had been interrupted; they are marked as such`);
    for (const run of interrupted) {
      this.bus.emit('run', run);
      await this.queue.add('tidy-run', { run: run.id }, { investigation: run.investigationId });
    }
    const ended = await endWhatWasUnderWay();
    if (ended > 0)
      this.log.warn(`${ended} run(s) that waited, or sweeps, were ended; it is said where they were`);
  }

  private async lookAgain(): Promise<void> {
    if (this.isBusy) return;
    this.isBusy = true;
    try {
      await this.seeTo();
    } catch (error) {
      this.log.warn({ error: String(error) }, 'what others have left behind is looked for again');
    } finally {
      this.isBusy = false;
    }
  }
}
