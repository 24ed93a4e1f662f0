import { type SeenReadings } from '../workers/seen';
import { type InRuns } from '../recording/plan/hints';
import { presentRuns, shownRuns } from './runs';
import { type SeenRun } from './seenRun';

/** What each run has shown; kept of those that were hidden meanwhile. */
export class RunsSeen {
  private readonly known = new Map<string, SeenReadings[]>();

  constructor(private readonly ask: (runId: string) => Promise<SeenReadings[]>) {}

  /** Looks at runs that have ended and were not looked at yet, as far as their readings are here. */
  async look(runs: readonly SeenRun[]): Promise<void> {
    for (const { id, state, spot } of shownRuns(runs)) {
      if (state !== 'ended' || spot !== null || this.known.has(id)) continue;
      const seen = await this.ask(id);
      if (seen.length > 0) this.known.set(id, seen);
    }
  }

  /** What a quantity showed in the runs that are there, read by the sensor that reads it now. */
  in(runs: readonly SeenRun[]): InRuns {
    const seen = presentRuns(runs).flatMap(({ id }) => this.known.get(id) ?? []);
    return ({ key, device: { code } }) =>
      seen.filter((channel) => channel.key === key && channel.deviceCode === code);
  }
}
