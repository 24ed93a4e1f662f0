import { EventEmitter } from 'node:events';
import pg from 'pg';

interface Events {
  changed: [away: boolean];
}

const pauseMilliseconds = 400;
const patienceMilliseconds = 1200;

/**
 * Asks the database over and over, on a connection of its own, whether it answers; says so within two seconds when it does
 * not, also where it hangs without breaking any connection.
 */
export class DatabaseHealth extends EventEmitter<Events> {
  away = false;
  private client: pg.Client | null = null;
  private timer: NodeJS.Timeout | null = null;
  private closed = false;

  constructor(private readonly address: string) {
    super();
    // Every request in flight may listen for the moment at which the database goes away.
    this.setMaxListeners(0);
    void this.ask();
  }

  /** Asks now rather than at the next turn. */
  private async ask(): Promise<void> {
    const answered = await this.answers();
    if (this.closed) return;
    if (answered === this.away) {
      this.away = !answered;
      this.emit('changed', this.away);
    }
    this.timer = setTimeout(() => void this.ask(), pauseMilliseconds);
  }

  private async answers(): Promise<boolean> {
    try {
      if (this.client === null) {
        const client = new pg.Client({
          connectionString: this.address,
          connectionTimeoutMillis: patienceMilliseconds,
          query_timeout: patienceMilliseconds,
        });
        client.on('error', () => this.drop(client));
        this.client = client;
        await client.connect();
      }
      await this.client.query('select 1');
      return true;
    } catch {
      if (this.client !== null) this.drop(this.client);
      return false;
    }
  }

  private drop(client: pg.Client): void {
    if (this.client === client) this.client = null;
    // Its socket may hang; it is not waited for.
    client.end().catch(() => undefined);
  }

  async close(): Promise<void> {
    this.closed = true;
    if (this.timer !== null) clearTimeout(this.timer);
    const { client } = this;
    this.client = null;
    if (client !== null)
      await Promise.race([
        client.end().catch(() => undefined),
        new Promise((resolve) => setTimeout(resolve, 500).unref()),
      ]);
  }
}
