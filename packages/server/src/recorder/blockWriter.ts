import { type Knex } from 'knex';
import { type Logger } from 'pino';
import { BlockModel } from '../models/block';
import { bytesOf } from '../services/samples';

/** Milliseconds between two writes: with a frame's way here and the commit, a crash costs less than 250 ms. */
const flushMilliseconds = 100;
/** Readings of one block; more are written as several. */
const mostInBlock = 65_536;

interface Part {
  firstIndex: number;
  values: Float64Array;
  times: Float64Array | null;
}

interface Pending {
  sequence: number;
  waiting: Part[];
}

type Block = Pick<BlockModel, 'channelId' | 'sequence' | 'firstIndex' | 'count' | 'values' | 'times'>;

/**
 * Appends the readings of running channels to the database several times a second, in order, on a connection of its own that
 * nothing else can starve. A batch is fixed before it is sent and sent again until the database has it; a block that is there
 * already, because only the answer was lost, is passed over.
 */
export class BlockWriter {
  /** So many readings may wait for the database; more are too many for the memory of a school's machine. */
  room = 20_000_000;
  private readonly pending = new Map<number, Pending>();
  private batch: Block[] = [];
  private writing: Promise<void> | null = null;
  private readonly timer: NodeJS.Timeout;
  private failing = false;
  private waitingCount = 0;

  constructor(
    private readonly database: Knex,
    private readonly log: Logger,
    private readonly onWaiting: (waiting: boolean) => void,
  ) {
    this.timer = setInterval(() => void this.flush(), flushMilliseconds);
  }

  close(): void {
    clearInterval(this.timer);
  }

  /** Whether readings wait for a database that does not take them. */
  get isWaiting(): boolean {
    return this.failing;
  }

  open(channelId: number): void {
    this.pending.set(channelId, { sequence: 0, waiting: [] });
  }

  /** Takes readings; false where so many wait already that these would be too many. */
  append(channelId: number, part: Part): boolean {
    const pending = this.pending.get(channelId);
    if (pending === undefined || this.waitingCount + part.values.length > this.room) return false;
    pending.waiting.push(part);
    this.waitingCount += part.values.length;
    return true;
  }

  /** Writes what is waiting; resolves with whether all that was appended before the call is stored. */
  async flush(): Promise<boolean> {
    while (this.writing !== null) await this.writing;
    this.writing = this.write().finally(() => (this.writing = null));
    await this.writing;
    return !this.failing;
  }

  forget(channelIds: readonly number[]): void {
    for (const id of channelIds) this.pending.delete(id);
  }

  private async write(): Promise<void> {
    if (this.batch.length === 0) this.batch = this.nextBatch();
    while (this.batch.length > 0) {
      try {
        await BlockModel.query(this.database)
          .insert(this.batch as BlockModel[])
          .onConflict(['channelId', 'sequence'])
          .ignore();
      } catch (error) {
        this.turn(true, error);
        return;
      }
      for (const { count } of this.batch) this.waitingCount -= count;
      this.turn(false);
      this.batch = this.nextBatch();
    }
  }

  /** Joins what follows on without a hole into one block a channel, as far as a block may be long. */
  private nextBatch(): Block[] {
    const blocks: Block[] = [];
    for (const [channelId, pending] of this.pending) {
      let count = 0;
      let parts = 0;
      for (const part of pending.waiting) {
        const first = pending.waiting[0];
        const follows =
          part.firstIndex === first.firstIndex + count && (part.times === null) === (first.times === null);
        if (parts > 0 && (!follows || count + part.values.length > mostInBlock)) break;
        count += part.values.length;
        parts++;
      }
      if (parts === 0) continue;
      const taken = pending.waiting.splice(0, parts);
      const [{ firstIndex }] = taken;
      blocks.push({
        channelId,
        sequence: pending.sequence++,
        firstIndex,
        count,
        values: bytesOf(
          joined(
            taken.map(({ values }) => values),
            count,
          ),
        ),
        times:
          taken[0].times === null
            ? null
            : bytesOf(
                joined(
                  taken.map(({ times, values }) => times ?? values),
                  count,
                ),
              ),
      });
    }
    return blocks;
  }

  private turn(failing: boolean, error?: unknown): void {
    if (failing === this.failing) return;
    this.failing = failing;
    this.onWaiting(failing);
    if (failing)
      this.log.error(error, 'Readings cannot be stored right now; they are kept in memory and tried again');
    else this.log.info('Readings are being stored again');
  }
}

function joined(parts: readonly Float64Array[], count: number): Float64Array {
  if (parts.length === 1) return parts[0];
  const out = new Float64Array(count);
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
