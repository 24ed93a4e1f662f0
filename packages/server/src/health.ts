import { EventEmitter } from 'node:events';
import pg from 'pg';

interface Events {
  changed: [away: boolean];
}

const pauseMilliseconds = 400;
/** So many turns of waiting, of this length each: while this process itself stands still, it waits for nobody. */
const patienceTurns = 12;
const turnMilliseconds = 100;

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
    const isAnswered = await withinPatience(this.query());
    if (!isAnswered && this.client !== null) this.drop(this.client);
    return isAnswered;
  }

  private async query(): Promise<void> {
    if (this.client === null) {
      const client = new pg.Client({ connectionString: this.address });
      client.on('error', () => this.drop(client));
      this.client = client;
      await client.connect();
    }
    await this.client.query('select 1');
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

/** Whether a question is answered before patience ends. */
function withinPatience(question: Promise<void>): Promise<boolean> {
  return new Promise((resolve) => {
    let turns = 0;
    const timer = setInterval(() => {
      if (++turns >= patienceTurns) settle(false);
    }, turnMilliseconds);
    const settle = (isAnswered: boolean) => {
      clearInterval(timer);
      resolve(isAnswered);
    };
    question.then(
      () => settle(true),
      () => settle(false),
    );
  });
}
