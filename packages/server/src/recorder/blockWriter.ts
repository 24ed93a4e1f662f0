import { type Logger } from 'pino';
import { BlockModel } from '../models/block';
import { bytesOf } from '../services/samples';

/** Milliseconds between two writes: with a frame's way here and the commit, a crash costs less than 250 ms. */
const flushMilliseconds = 100;

interface Pending {
  channelId: number;
  sequence: number;
  stored: number;
  waiting: number[];
}

/** Appends the readings of running channels to the database several times a second, in order, and keeps what did not get in. */
export class BlockWriter {
  private readonly pending = new Map<number, Pending>();
  private writing: Promise<void> | null = null;
  private readonly timer: NodeJS.Timeout;
  private failing = false;

  constructor(
    private readonly log: Logger,
    private readonly onStorage: (waiting: boolean) => void,
  ) {
    this.timer = setInterval(() => void this.flush(), flushMilliseconds);
  }

  close(): void {
    clearInterval(this.timer);
  }

  open(channelId: number): void {
    this.pending.set(channelId, { channelId, sequence: 0, stored: 0, waiting: [] });
  }

  append(channelId: number, value: number): void {
    this.pending.get(channelId)?.waiting.push(value);
  }

  /** Writes what is waiting; resolves when all that was appended before the call is stored, or could not be. */
  async flush(): Promise<boolean> {
    while (this.writing !== null) await this.writing;
    this.writing = this.write();
    await this.writing;
    this.writing = null;
    return !this.failing;
  }

  /** Stores the rest of some channels and forgets them; tries until it succeeds. */
  async finish(channelIds: readonly number[]): Promise<void> {
    while (!(await this.flush())) await new Promise((resolve) => setTimeout(resolve, 500));
    for (const id of channelIds) this.pending.delete(id);
  }

  private async write(): Promise<void> {
    const full = [...this.pending.values()].filter(({ waiting }) => waiting.length > 0);
    if (full.length === 0) return;
    const taken = full.map((channel) => ({ channel, values: Float64Array.from(channel.waiting) }));
    try {
      await BlockModel.knexQuery().insert(
        taken.map(({ channel, values }) => ({
          channelId: channel.channelId,
          sequence: channel.sequence,
          firstIndex: channel.stored,
          count: values.length,
          values: bytesOf(values),
        })),
      );
    } catch (error) {
      if (!this.failing) {
        this.failing = true;
        this.onStorage(true);
        this.log.error(error, 'Readings cannot be stored right now; they are kept in memory and tried again');
      }
      return;
    }
    for (const { channel, values } of taken) {
      channel.waiting.splice(0, values.length);
      channel.sequence++;
      channel.stored += values.length;
    }
    if (this.failing) {
      this.failing = false;
      this.onStorage(false);
      this.log.info('Readings are being stored again');
    }
  }
}
