import { type DiskState } from '@heuristor/contracts';
import { EventEmitter } from 'node:events';
import { statfs } from 'node:fs/promises';
import { type Knex } from 'knex';

interface Events {
  changed: [];
}

const askMilliseconds = 1000;
/** With less room than this a class can still record for an hour or two; it is said. */
const lowBytes = 500e6;
/** The database takes its next piece of log in one of 16 MiB, and stops where there is no room for it. */
const fullBytes = 24e6;
/** Changes of room below this are no news. */
const worthSaying = 20e6;

/** Looks at how much room is left where things are stored, and says when it becomes little. */
export class DiskRoom extends EventEmitter<Events> {
  /** The least that is free in any of the places; null where none can be looked at. */
  free: number | null = null;
  private readonly timer: NodeJS.Timeout;
  private lastEmitted: { state: DiskState; free: number } | null = null;

  constructor(private readonly folders: readonly string[]) {
    super();
    this.timer = setInterval(() => void this.look(), askMilliseconds);
    void this.look();
  }

  get state(): DiskState {
    if (this.free === null || this.free > lowBytes) return 'plenty';
    return this.free > fullBytes ? 'low' : 'full';
  }

  close(): void {
    clearInterval(this.timer);
  }

  private async look(): Promise<void> {
    const found = await Promise.all(
      this.folders.map((folder) =>
        statfs(folder).then(
          ({ bavail, bsize }) => bavail * bsize,
          () => null,
        ),
      ),
    );
    const known = found.filter((bytes) => bytes !== null);
    this.free = known.length === 0 ? null : Math.min(...known);
    const { state, free } = this;
    const isNews =
      this.lastEmitted === null ||
      this.lastEmitted.state !== state ||
      (state !== 'plenty' && Math.abs((free ?? 0) - this.lastEmitted.free) > worthSaying);
    if (!isNews) return;
    this.lastEmitted = { state, free: free ?? 0 };
    this.emit('changed');
  }
}

/** Where a database on this machine keeps its files; nothing of one elsewhere, or where it does not say. */
export async function databaseFolder(knex: Knex): Promise<string[]> {
  try {
    const { rows } = await knex.raw<{ rows: { data_directory: string }[] }>('show data_directory');
    return rows.map(({ data_directory: folder }) => folder);
  } catch {
    return [];
  }
}
