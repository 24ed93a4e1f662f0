import { randomUUID } from 'node:crypto';
import { type Knex } from 'knex';
import { type Logger } from 'pino';
import { type Bus } from '../bus';

const beatMilliseconds = 1000;
/** Who has not been heard of for so long has ended, or hangs so long that others do not wait. */
const leaseSeconds = 3;

interface Parts {
  /** Connections that nothing else can starve. */
  storage: Knex;
  bus: Bus;
  log: Logger;
}

/**
 * This process among those that share a database: its lease is renewed every second, and what those have left behind whose lease ran
 * out is announced to whoever can take it on.
 */
export class OwnProcess {
  readonly id = randomUUID();
  private readonly storage: Knex;
  private readonly bus: Bus;
  private readonly log: Logger;
  private timer: NodeJS.Timeout | null = null;
  private isClosed = false;

  constructor({ storage, bus, log }: Parts) {
    this.storage = storage;
    this.bus = bus;
    this.log = log;
  }

  /** Takes a lease, and lets what others have left behind be seen to. */
  async begin(): Promise<void> {
    await this.renew();
    this.bus.emit('beat');
    this.next();
  }

  async close(): Promise<void> {
    this.isClosed = true;
    if (this.timer !== null) clearTimeout(this.timer);
    // What it had under way is announced at once; where the database is away its lease runs out by itself.
    await Promise.race([
      this.storage('server_process')
        .where({ id: this.id })
        .delete()
        .catch(() => undefined),
      new Promise((resolve) => setTimeout(resolve, 500).unref()),
    ]);
  }

  private next(): void {
    this.timer = setTimeout(() => {
      this.beat()
        .catch((error: unknown) => this.log.warn({ error: String(error) }, 'the lease could not be renewed'))
        .finally(() => !this.isClosed && this.next());
    }, beatMilliseconds).unref();
  }

  private async beat(): Promise<void> {
    const hadRunOut = await this.renew();
    // Others may have taken it for ended meanwhile.
    if (hadRunOut) this.bus.emit('lapsed');
    this.bus.emit('beat');
  }

  /** @returns whether the lease had run out before */
  private async renew(): Promise<boolean> {
    const { rows } = (await this.storage.raw(
      `with before as (select "leaseUntil" as until from server_process where id = :id),
            expired as (delete from server_process where "leaseUntil" < clock_timestamp() - interval '1 hour')
       insert into server_process (id, "leaseUntil") values (:id, clock_timestamp() + :lease * interval '1 second')
       on conflict (id) do update set "leaseUntil" = excluded."leaseUntil"
       returning coalesce((select until < clock_timestamp() from before), false) as "hadRunOut"`,
      { id: this.id, lease: leaseSeconds },
    )) as { rows: { hadRunOut: boolean }[] };
    return rows[0].hadRunOut;
  }
}
