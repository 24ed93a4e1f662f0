import { type ControlAction } from '@heuristor/contracts';
import { type Rig } from '../devices/device';
import { motionChannel, motionRates } from '../devices/motionSensor';
import { type Apparatus, Controls, control, gravity } from './apparatus';
import { Hand } from './hand';

/** The motion sensor hangs at this height and looks down, in metres. */
const sensorHeight = 2;
const highest = 1.8;
const radius = 0.1;

/** A ball dropped under an inverted motion sensor: ḧ = −g between bounces, each of which gives back a share e of its speed. */
class Ball implements Apparatus {
  private readonly controls = new Controls([
    control('bounce', 'Share of the speed after a bounce', '1', [0.3, 0.95, 0.01], 0.8),
    control('height', 'Height of the drop', 'm', [0.3, highest - radius, 0.05], 1.2),
  ]);
  readonly stage = { apparatus: 'ball', title: 'Ball under a motion sensor', controls: this.controls.list };
  /** Height of the lowest point above the floor, and its speed. */
  private state: [number, number] = [0, 0];
  private readonly hand = new Hand();

  step(seconds: number): void {
    if (this.hand.holds) {
      this.state = this.hand.follow(this.state, seconds);
      return;
    }
    let left = seconds;
    let [h, v] = this.state;
    if (h === 0 && v === 0) return;
    for (let bounces = 0; left > 0 && bounces < 20; bounces++) {
      // The moment at which it meets the floor: h + v t − g t²/2 = 0.
      const meets = (v + Math.sqrt(Math.max(v * v + 2 * gravity * h, 0))) / gravity;
      if (meets >= left) {
        [h, v] = [Math.max(h + v * left - (gravity * left * left) / 2, 0), v - gravity * left];
        break;
      }
      left -= meets;
      v = -(v - gravity * meets) * this.controls.value('bounce');
      h = 0;
      if (v < 0.05) v = left = 0;
    }
    this.state = [h, v];
  }

  get distance(): number {
    return sensorHeight - this.state[0] - 2 * radius;
  }

  scene(): Record<string, number> {
    return { h: this.state[0], held: Number(this.hand.holds) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        this.controls.set(action.key, action.value);
        break;
      case 'grab':
        this.hand.hold(action.at, 0, highest - 2 * radius);
        break;
      case 'release':
        this.hand.letGo();
        break;
      case 'do':
        if (action.key !== 'lift') break;
        this.hand.hold(this.controls.value('height'), 0, highest - 2 * radius);
        this.state = [this.controls.value('height'), 0];
        break;
    }
  }
}

export function ball(): Rig {
  const apparatus = new Ball();
  return {
    apparatus,
    devices: [
      {
        code: 'K4-B',
        model: 'Motion sensor',
        battery: 0.88,
        streams: [
          {
            key: 'motion',
            sampling: 'regular',
            rates: motionRates,
            channels: [motionChannel(() => apparatus.distance)],
          },
        ],
      },
    ],
  };
}
