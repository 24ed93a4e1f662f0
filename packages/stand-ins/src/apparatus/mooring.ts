import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { motionChannel, motionRates } from '../devices/motionSensor';
import { type Apparatus, Controls, choice, control, gravity, rungeKutta } from './apparatus';
import { Hand } from './hand';

/** Length of the tether, and where the motion sensor stands behind the boat's rest, in metres. */
const tether = 0.6;
const sensorBehind = 0.25;
/** Stiffness in N/m and share of the speed's energy that is lost, of the two tethers. */
const tethers = { string: { stiffness: 900, loss: 0.35 }, elastic: { stiffness: 45, loss: 0.06 } };

/**
 * A boat on level water that is pushed, runs to the end of its tether and is thrown back: m ẍ = −k (x − l) − c ẋ beyond the
 * tether's length l, nothing but a little friction before. A force sensor holds the tether's other end.
 */
class Mooring implements Apparatus {
  readonly finest = 0.0002;
  private readonly controls = new Controls([
    control('mass', 'Mass of the boat', 'kg', [0.2, 2, 0.01], 0.5),
    control('load', 'Load', 'kg', [0, 1, 0.05], 0),
    choice('elastic', 'Tether', ['string', 'elastic']),
    control('push', 'Speed of the push', 'm.s-1', [0.1, 1, 0.05], 0.5),
  ]);
  readonly stage = { apparatus: 'mooring', title: 'Boat on its mooring line', controls: this.controls.list };
  private state: [number, number] = [0, 0];
  private readonly hand = new Hand();

  private get mass(): number {
    return this.controls.value('mass') + this.controls.value('load');
  }

  /** Pull of the tether, in newtons. */
  get pull(): number {
    return this.pullAt(...this.state);
  }

  private pullAt(x: number, v: number): number {
    if (x <= tether) return 0;
    const { stiffness, loss } = this.controls.value('elastic') === 1 ? tethers.elastic : tethers.string;
    const damping = loss * Math.sqrt(stiffness * this.mass);
    // A tether pulls and never pushes.
    return Math.max(stiffness * (x - tether) + damping * v, 0);
  }

  step(seconds: number): void {
    if (this.hand.holds) {
      this.state = this.hand.follow(this.state, seconds);
      return;
    }
    const [x, v] = this.state;
    const drag = 0.001 * gravity;
    if (v === 0 && this.pullAt(x, v) <= drag * this.mass) return;
    const [x2, v2] = rungeKutta(
      [x, v],
      (at, speed) => -this.pullAt(at, speed) / this.mass - Math.sign(speed) * drag,
      seconds,
    );
    const stops = Math.sign(v2) !== Math.sign(v) && this.pullAt(x, v) === 0 && v !== 0;
    this.state = stops ? [x2, 0] : [x2, v2];
    if (x2 < 0 && v2 < 0) this.state = [0, 0];
  }

  get distance(): number {
    return sensorBehind + this.state[0];
  }

  scene(): Record<string, number> {
    return { x: this.state[0], pull: this.pull, held: Number(this.hand.holds) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        this.controls.set(action.key, action.value);
        break;
      case 'grab':
        this.hand.hold(action.at, 0, tether);
        break;
      case 'release':
        this.hand.letGo();
        break;
      case 'do':
        if (action.key === 'push') {
          this.hand.letGo();
          this.state = [0.05, this.controls.value('push')];
        }
        if (action.key === 'back') {
          this.hand.letGo();
          this.state = [0.05, 0];
        }
        break;
    }
  }
}

export function mooring(): Rig {
  const apparatus = new Mooring();
  return {
    apparatus,
    devices: [
      {
        code: 'M1-D',
        model: 'Motion sensor',
        battery: 0.58,
        streams: [
          {
            key: 'motion',
            sampling: 'regular',
            rates: motionRates,
            channels: [motionChannel(() => apparatus.distance)],
          },
        ],
      },
      {
        code: 'M1-F',
        model: 'Force sensor',
        battery: 0.77,
        streams: [
          {
            key: 'force',
            sampling: 'regular',
            rates: { lowest: 1, highest: 1000, usual: 500 },
            channels: [
              {
                channel: channel(
                  'force',
                  'F',
                  'force',
                  'N',
                  { key: 'wide', label: 'wide', low: -50, high: 50, noise: 0.02, resolution: 0.005 },
                  { key: 'fine', label: 'fine', low: -10, high: 10, noise: 0.004, resolution: 0.001 },
                ),
                truth: () => apparatus.pull,
                flaws: { offset: 0.21 },
              },
            ],
          },
        ],
      },
    ],
  };
}
