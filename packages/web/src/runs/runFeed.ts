import { type Run, type SampleFrame } from '@heuristor/contracts';
import { readingsOfSpot } from '@heuristor/evaluation';
import { type RunPool } from './pool';
import { isSameSpot } from '../recording/spots/spotReadings';

type Fetch = (path: string) => Promise<Float64Array>;

interface Feed {
  run: Run;
  loading: Promise<void>;
  /** Live readings that came while the stored ones were still on their way. */
  early: SampleFrame[] | null;
  /** Channels whose missing readings are being fetched. */
  filling: Set<number>;
  /** Readings that a worker holds of it. */
  size: number;
}

/** Readings of hidden runs that are kept, so that a run that is hidden and shown again is there at once. */
const mostHidden = 2e6;

/**
 * Brings the readings of runs into the workers: stored ones when a run is first shown, live ones as they come. Where live
 * frames were lost on the way, what is missing is fetched from the server, so that a hole never stays one.
 */
export class RunFeed {
  private readonly feeds = new Map<string, Feed>();

  constructor(
    private readonly pool: RunPool,
    private readonly fetch: Fetch,
    private readonly onReadings: () => void,
    private readonly onFault: (run: Run, error: unknown) => void,
  ) {}

  /**
   * Sees to it that the shown runs are in the workers. Of hidden ones those stay that were shown last, as long as they are small;
   * removed ones go.
   */
  holdOnly(shown: readonly Run[], all: readonly Run[]): void {
    const ids = new Set(shown.map(({ id }) => id));
    const present = new Set(all.filter((run) => !run.removed).map(({ id }) => id));
    for (const run of shown) this.hold(run);
    let room = mostHidden;
    const hidden = [...this.feeds.values()].filter(
      ({ run: { id, state } }) => !ids.has(id) && state !== 'recording',
    );
    for (const { run, size } of hidden.reverse()) {
      if (present.has(run.id) && size <= room) room -= size;
      else this.letGo(run.id);
    }
    // The last that were shown stand last.
    for (const { id } of shown) {
      const feed = this.feeds.get(id);
      this.feeds.delete(id);
      if (feed !== undefined) this.feeds.set(id, feed);
    }
  }

  private letGo(runId: string): void {
    this.feeds.delete(runId);
    this.pool.drop(runId);
  }

  /** Sees to it that a run is in a worker. */
  private hold(run: Run): void {
    const known = this.feeds.get(run.id);
    if (known !== undefined && (run.spot === null || isSameSpot(known.run.spot, run.spot))) {
      known.run = run;
      return;
    }
    const feed: Feed = { run, loading: Promise.resolve(), early: [], filling: new Set(), size: 0 };
    this.feeds.set(run.id, feed);
    feed.loading = this.load(feed).then(this.onReadings, (error: unknown) => {
      this.feeds.delete(run.id);
      this.onFault(run, error);
    });
  }

  take(frame: SampleFrame): void {
    for (const feed of this.feeds.values()) {
      if (!feed.run.channels.some(({ id }) => id === frame.subject)) continue;
      if (feed.early !== null) feed.early.push(frame);
      else void this.append(feed, frame);
      return;
    }
  }

  /** Looks for what came while the stream was down, or was lost at the end of a run. */
  async complete(runId: string): Promise<void> {
    const feed = this.feeds.get(runId);
    if (feed === undefined || feed.run.spot !== null) return;
    await feed.loading;
    for (const { id } of feed.run.channels) await this.fill(feed, id);
  }

  completeAll(): void {
    for (const id of this.feeds.keys()) void this.complete(id);
  }

  dispose(): void {
    this.feeds.clear();
  }

  private async load(feed: Feed): Promise<void> {
    const { channels, spot } = feed.run;
    if (spot !== null) {
      await this.pool.put(feed.run, readingsOfSpot(channels, spot));
      feed.early = null;
      return;
    }
    // Let go of, or begun anew, while it was on its way.
    const isGone = () => this.feeds.get(feed.run.id) !== feed;
    const values = await Promise.all(channels.map(({ id }) => this.fetch(`/channels/${id}/values`)));
    const times = await Promise.all(
      channels.map(({ id, sampling }) =>
        sampling.kind === 'regular' ? null : this.fetch(`/channels/${id}/times`),
      ),
    );
    if (isGone()) return;
    feed.size = values.reduce((sum, { length }) => sum + length, 0);
    await this.pool.put(feed.run, {
      values,
      times: times.map((own, i) => own?.subarray(0, values[i].length) ?? null),
    });
    const early = feed.early ?? [];
    feed.early = null;
    for (const frame of early) await this.append(feed, frame);
  }

  private async append(feed: Feed, { subject, firstIndex, values, times }: SampleFrame): Promise<void> {
    const missing = await this.pool.append(subject, firstIndex, values, times);
    feed.size += values.length;
    if (missing === null) this.onReadings();
    else await this.fill(feed, subject);
  }

  /** Fetches what a channel lacks from its last known reading on. */
  private async fill(feed: Feed, channelId: number): Promise<void> {
    if (feed.filling.has(channelId)) return;
    feed.filling.add(channelId);
    try {
      const place = feed.run.channels.findIndex(({ id }) => id === channelId);
      const from = (await this.pool.ask(feed.run.id, 'lengths'))?.[place] ?? 0;
      const values = await this.fetch(`/channels/${channelId}/values?from=${from}`);
      if (values.length === 0) return;
      const times =
        feed.run.channels[place].sampling.kind === 'regular'
          ? null
          : await this.fetch(`/channels/${channelId}/times?from=${from}`);
      await this.pool.append(channelId, from, values, times?.subarray(0, values.length) ?? null);
      this.onReadings();
    } catch {
      // The next frame, the end of the run or the next connection asks again.
    } finally {
      feed.filling.delete(channelId);
    }
  }
}
