import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, control } from './apparatus';
import { Hand } from './hand';

const wayLength = 2;

/** A wheel that a hand rolls along the quay: angle = way / radius. What it takes for its radius is set by a person. */
class Wheel implements Apparatus {
  private readonly controls = new Controls([
    control('radius', 'True radius of the wheel', 'm', [0.01, 0.1, 0.001], 0.031),
  ]);
  readonly stage = { apparatus: 'wheel', title: 'Wheel, rolled by hand', controls: this.controls.list };
  private state: [number, number] = [0, 0];
  private readonly hand = new Hand();

  step(seconds: number): void {
    if (this.hand.holds) this.state = this.hand.follow(this.state, seconds);
  }

  get angle(): number {
    return this.state[0] / this.controls.value('radius');
  }

  scene(): Record<string, number> {
    return { s: this.state[0], held: Number(this.hand.holds) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        this.controls.set(action.key, action.value);
        break;
      case 'grab':
        this.hand.hold(action.at, 0, wayLength);
        break;
      case 'release':
        this.hand.letGo();
        this.state = [this.state[0], 0];
        break;
      case 'do':
        if (action.key === 'back') {
          this.hand.letGo();
          this.state = [0, 0];
        }
        break;
    }
  }
}

export function wheel(): Rig {
  const apparatus = new Wheel();
  let radius = 0.03;
  const step = (2 * Math.PI) / 1440;
  return {
    apparatus,
    devices: [
      {
        code: 'W3-R',
        model: 'Rolling wheel',
        battery: 0.12,
        numbers: [control('radius', 'Radius of the wheel', 'm', [0.005, 0.5, 0.0001], radius)],
        number: (_key, value) => (radius = value),
        streams: [
          {
            key: 'wheel',
            sampling: 'regular',
            rates: { lowest: 1, highest: 200, usual: 50 },
            channels: [
              {
                channel: channel('angle', 'φ', 'angle', 'rad', {
                  low: -6283,
                  high: 6283,
                  noise: 0,
                  resolution: step,
                }),
                truth: () => apparatus.angle,
              },
              {
                channel: channel('way', 's', 'distance', 'm', { low: -200, high: 200, noise: 0 }),
                // The device reckons it from its steps and the radius that it was told.
                truth: () => Math.round(apparatus.angle / step) * step * radius,
              },
            ],
          },
        ],
      },
    ],
  };
}
