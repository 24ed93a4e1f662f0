import { type Bus } from '../bus';
import { markRun } from '../services/runs';
import { type Recording } from './recording';

const markMilliseconds = 1000;

interface Parts {
  bus: Pick<Bus, 'emit'>;
  /** Nothing is tried again from there on. */
  isOver: () => boolean;
  /** Stores what is marked; another one for tests. */
  store?: typeof markRun;
}

/** Stores gaps and sentences of running recordings and tells the screens, at most once a second and apart from the readings. */
export class RunMarks {
  private readonly bus: Pick<Bus, 'emit'>;
  private readonly isOver: () => boolean;
  private readonly store: typeof markRun;

  constructor({ bus, isOver, store = markRun }: Parts) {
    this.bus = bus;
    this.isOver = isOver;
    this.store = store;
  }

  mark(recording: Recording): void {
    const { marked } = recording;
    marked.dirty = true;
    marked.timer ??= setTimeout(() => {
      marked.timer = null;
      if (!marked.dirty || !('gaps' in recording.state) || recording.run === null) return;
      marked.dirty = false;
      this.store(recording.run.id, recording.state)
        .then((run) => {
          // Its end may have been stored and said meanwhile: after that, nobody may hear that it goes on.
          if ('gaps' in recording.state) this.bus.emit('run', run);
        })
        .catch(() => this.isOver() || this.mark(recording));
    }, markMilliseconds);
  }
}
