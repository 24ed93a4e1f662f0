import { performance } from 'node:perf_hooks';
import { type Rig } from './devices/device';
import { RigClock } from './devices/rigClock';
import { LinkClient } from './linkClient';

const tickMilliseconds = 20;

interface Running {
  clock: RigClock;
  clients: LinkClient[];
  began: number;
}

/** Every device has its own chance, so that what one reads does not depend on when another one does. */
const seedOf = (code: string, seed: number) =>
  [...code].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 10_000, seed % 10_000);

/** Puts rigs on the device link and moves them on; one that nobody reads or looks at costs nothing. */
export class StandIns {
  private readonly rigs: Running[];
  private readonly timer: NodeJS.Timeout;
  private loose: NodeJS.Timeout | null = null;

  constructor(url: string, rigs: readonly Rig[], seed: number) {
    this.rigs = rigs.map(({ apparatus, devices }) => {
      const clock = new RigClock(apparatus);
      const rig: Running = { clock, clients: [], began: performance.now() };
      const catchUp = () => clock.advanceTo((performance.now() - rig.began) / 1000);
      rig.clients = devices.map(
        (device) => new LinkClient(device, { url, clock, seed: seedOf(device.code, seed), catchUp }),
      );
      return rig;
    });
    this.timer = setInterval(() => this.tick(), tickMilliseconds);
  }

  /** From now on a plug is pulled somewhere about every so many seconds. */
  loosenPlugs(seconds: number, random: () => number = Math.random): void {
    const pull = () => {
      const clients = this.rigs.flatMap((rig) => rig.clients);
      clients[Math.floor(random() * clients.length)]?.unplug();
      this.loose = setTimeout(pull, seconds * 1000 * (0.5 + random()));
    };
    this.loose = setTimeout(pull, seconds * 1000);
  }

  close(): void {
    clearInterval(this.timer);
    if (this.loose !== null) clearTimeout(this.loose);
    for (const { clients } of this.rigs) for (const client of clients) client.close();
  }

  private tick(): void {
    for (const { clock, clients, began } of this.rigs) {
      if (!clients.some(({ isBusy }) => isBusy)) continue;
      clock.advanceTo((performance.now() - began) / 1000);
      for (const client of clients) client.send();
    }
  }
}
