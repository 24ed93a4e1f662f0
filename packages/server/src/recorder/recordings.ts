import { type LinkedStream } from '../link/device';
import { type InRuns } from '../presence/inRuns';
import { type Recording, busyWith, rateInRuns } from './recording';

/** The recordings under way in this process, one an investigation at most. */
export class Recordings implements InRuns {
  private readonly byInvestigation = new Map<string, Recording>();

  get(investigation: string): Recording | undefined {
    return this.byInvestigation.get(investigation);
  }

  all(): IterableIterator<Recording> {
    return this.byInvestigation.values();
  }

  /** Whether anything is recorded, or waits to begin. */
  isBusy(): boolean {
    return this.byInvestigation.size > 0;
  }

  add(recording: Recording): void {
    this.byInvestigation.set(recording.investigationId, recording);
  }

  end({ investigationId }: Recording): void {
    this.byInvestigation.delete(investigationId);
  }

  /** Runs that are being recorded, by their ids. */
  runIds(): string[] {
    return [...this.all()].flatMap(({ run, state }) =>
      run !== null && state.phase === 'recording' ? [run.id] : [],
    );
  }

  whyBusy(code: string): string | null {
    return busyWith(code, this.all());
  }

  rateOf(stream: LinkedStream): number | null {
    return rateInRuns(stream, this.all());
  }
}
