import { type ControlAction, type Settable } from '@heuristor/contracts';
import { type Bus } from '../bus';
import { type LinkedDevice } from '../link/device';
import { type Presence } from './presence';

/** The simulated apparatus in front of devices: who looks at it, and what hands do to it. */
export class Stages {
  private watched: ReadonlySet<string> = new Set();
  private readonly presence: Presence;

  constructor({ bus, presence }: { bus: Bus; presence: Presence }) {
    this.presence = presence;
    bus.on('welcomed', (device) => {
      if (this.isWatched(device)) device.send?.({ type: 'watched', watched: true });
    });
  }

  /** Devices in front of an apparatus that somebody looks at say how it moves; others are spared it. */
  watch(watched: ReadonlySet<string>): void {
    const before = new Map(this.presence.all().map((device) => [device, this.isWatched(device)]));
    this.watched = watched;
    for (const [device, was] of before) {
      const is = this.isWatched(device);
      if (is !== was) device.send?.({ type: 'watched', watched: is });
    }
  }

  control(code: string, control: ControlAction): void {
    this.presence
      .all()
      .find((device) => device.code === code)
      ?.send?.({ type: 'control', control });
  }

  /** What can be set of how a stand-in's sensors err; nothing of a real device. @throws Failure */
  errorsOf(code: string): Settable[] {
    return this.presence.find(code).description.stage?.sensor ?? [];
  }

  private isWatched({ description }: LinkedDevice): boolean {
    return description.stage !== null && this.watched.has(description.stage.apparatus);
  }
}
