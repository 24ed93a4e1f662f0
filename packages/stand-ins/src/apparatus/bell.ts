import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, control, gravity, rungeKutta } from './apparatus';
import { Hand } from './hand';

const farthest = 3;

/**
 * The ship's bell as a pendulum, at any amplitude: θ̈ = −(g/l) sin θ − γ θ̇, θ from hanging rest. A rotary sensor sits on its
 * axle.
 */
class Bell implements Apparatus {
  private readonly controls = new Controls([
    control('length', 'Length of the pendulum', 'm', [0.2, 1.5, 0.01], 0.6),
    control('damping', 'Damping', 's-1', [0, 0.5, 0.005], 0.01),
    control('amplitude', 'Pull aside', 'deg', [1, 170, 1], 10),
  ]);
  readonly stage = { apparatus: 'bell', title: 'Ship’s bell as a pendulum', controls: this.controls.list };
  private state: [number, number] = [0, 0];
  private readonly hand = new Hand();

  step(seconds: number): void {
    if (this.hand.holds) {
      this.state = this.hand.follow(this.state, seconds);
      return;
    }
    const [length, damping] = [this.controls.value('length'), this.controls.value('damping')];
    this.state = rungeKutta(
      this.state,
      (angle, speed) => -(gravity / length) * Math.sin(angle) - damping * speed,
      seconds,
    );
  }

  get angle(): number {
    return this.state[0];
  }

  scene(): Record<string, number> {
    return { angle: this.state[0], held: Number(this.hand.holds) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        this.controls.set(action.key, action.value);
        break;
      case 'grab':
        this.hand.hold(action.at, -farthest, farthest);
        break;
      case 'release':
        this.hand.letGo();
        break;
      case 'do':
        if (action.key === 'rest') {
          this.hand.letGo();
          this.state = [0, 0];
        }
        if (action.key === 'pull') {
          const aside = -(this.controls.value('amplitude') * Math.PI) / 180;
          this.hand.hold(aside, -farthest, farthest);
          this.state = [aside, 0];
        }
        break;
    }
  }
}

export function bell(): Rig {
  const apparatus = new Bell();
  return {
    apparatus,
    devices: [
      {
        code: 'B2-R',
        model: 'Rotary sensor',
        battery: 0.91,
        streams: [
          {
            key: 'angle',
            sampling: 'regular',
            rates: { lowest: 1, highest: 500, usual: 50 },
            channels: [
              {
                // A disc of 4000 steps: common practice, no source.
                channel: channel('angle', 'θ', 'angle', 'rad', {
                  low: -628,
                  high: 628,
                  noise: 0.0005,
                  resolution: (2 * Math.PI) / 4000,
                }),
                truth: () => apparatus.angle,
              },
            ],
          },
        ],
      },
    ],
  };
}
