import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, control } from './apparatus';
import { Hand } from './hand';

const nearest = 0.02;
const farthest = 0.5;
/** The sensing point lies so far behind the tip of the probe, in metres. */
const behindTip = 0.012;
/** Field of the surroundings along x, y, z, in millitesla. */
const surroundings = { x: 0.019, y: -0.006, z: 0.042 };

/**
 * The hatch magnet on a rail before a field sensor: on its axis B = µ₀ m / 2π r³, r from the middle of the magnet to the
 * sensing point behind the probe's tip; beside the axis nothing but the surroundings.
 */
class Rail implements Apparatus {
  private readonly controls = new Controls([
    control('moment', 'Moment of the magnet', 'A.m2', [0.1, 3, 0.05], 0.9),
    control('distance', 'Distance from the tip', 'm', [nearest, farthest, 0.001], 0.2),
  ]);
  readonly stage = { apparatus: 'rail', title: 'Hatch magnet on a rail', controls: this.controls.list };
  private readonly hand = new Hand();
  private state: [number, number] = [0.2, 0];

  step(seconds: number): void {
    if (!this.hand.holds) return;
    this.state = this.hand.follow(this.state, seconds);
    this.controls.set('distance', this.state[0]);
  }

  /** In millitesla, along the rail. */
  get along(): number {
    const r = this.state[0] + behindTip;
    return (2e-7 * this.controls.value('moment') * 1000) / r ** 3 + surroundings.x;
  }

  scene(): Record<string, number> {
    return { distance: this.state[0], held: Number(this.hand.holds), field: this.along };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        this.controls.set(action.key, action.value);
        if (action.key === 'distance') this.state = [this.controls.value('distance'), 0];
        break;
      case 'grab':
        this.hand.hold(action.at, nearest, farthest);
        break;
      case 'release':
        this.hand.letGo();
        this.state = [this.state[0], 0];
        break;
      case 'do':
        if (action.key === 'away') {
          this.state = [farthest, 0];
          this.controls.set('distance', farthest);
        }
        break;
    }
  }
}

export function rail(): Rig {
  const apparatus = new Rail();
  const axis = (key: 'x' | 'y' | 'z', truth: () => number) => ({
    channel: channel(
      `b${key.toUpperCase()}`,
      key === 'x' ? 'B' : `B${key}`,
      'magnetic flux density',
      'mT',
      { key: 'coarse', label: 'coarse', low: -90, high: 90, noise: 0.02, resolution: 0.01 },
      { key: 'fine', label: 'fine', low: -8, high: 8, noise: 0.001, resolution: 0.0005 },
    ),
    truth,
  });
  return {
    apparatus,
    devices: [
      {
        code: 'F7-B',
        model: 'Magnetic field sensor',
        battery: 0.66,
        streams: [
          {
            key: 'field',
            sampling: 'regular',
            rates: { lowest: 0.1, highest: 100, usual: 20 },
            channels: [
              axis('x', () => apparatus.along),
              axis('y', () => surroundings.y),
              axis('z', () => surroundings.z),
            ],
          },
        ],
      },
    ],
  };
}
