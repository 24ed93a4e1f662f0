import { type Bus } from '../bus';
import { markRun } from '../services/runs';
import { type Recording } from './recording';

const markMilliseconds = 1000;

interface Parts {
  bus: Bus;
  /** Nothing is tried again from there on. */
  isOver: () => boolean;
}

/** Stores gaps and sentences of running recordings and tells the screens, at most once a second and apart from the readings. */
export class RunMarks {
  private readonly bus: Bus;
  private readonly isOver: () => boolean;

  constructor({ bus, isOver }: Parts) {
    this.bus = bus;
    this.isOver = isOver;
  }

  mark(recording: Recording): void {
    const { marked } = recording;
    marked.dirty = true;
    marked.timer ??= setTimeout(() => {
      marked.timer = null;
      if (!marked.dirty || !('gaps' in recording.state) || recording.run === null) return;
      marked.dirty = false;
      markRun(recording.run.id, recording.state)
        .then((run) => this.bus.emit('run', run))
        .catch(() => this.isOver() || this.mark(recording));
    }, markMilliseconds);
  }
}
