import { type Clock, type Timer, wallClock } from '@heuristor/contracts';
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
  private loose: Timer | null = null;

  /** @param time that passes for the apparatus */
  constructor(
    url: string,
    rigs: readonly Rig[],
    seed: number,
    private readonly time: Clock = wallClock,
  ) {
    this.rigs = rigs.map(({ apparatus, devices }) => {
      const clock = new RigClock(apparatus);
      const rig: Running = { clock, clients: [], began: time.now() };
      const catchUp = () => clock.advanceTo((time.now() - rig.began) / 1000);
      rig.clients = devices.map(
        (device) => new LinkClient(device, { url, clock, time, seed: seedOf(device.code, seed), catchUp }),
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
      this.loose = this.time.after(seconds * 1000 * (0.5 + random()), pull);
    };
    this.loose = this.time.after(seconds * 1000, pull);
  }

  close(): void {
    clearInterval(this.timer);
    this.loose?.cancel();
    for (const { clients } of this.rigs) for (const client of clients) client.close();
  }

  private tick(): void {
    for (const { clock, clients, began } of this.rigs) {
      if (!clients.some(({ isBusy }) => isBusy)) continue;
      clock.advanceTo((this.time.now() - began) / 1000);
      for (const client of clients) client.send();
    }
  }
}
