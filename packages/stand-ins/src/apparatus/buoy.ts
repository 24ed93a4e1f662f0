import { type ControlAction } from '@heuristor/contracts';
import { type Rig } from '../devices/device';
import { motionChannel, motionRates } from '../devices/motionSensor';
import { type Apparatus, Controls, control, rungeKutta } from './apparatus';
import { Hand } from './hand';

/** Distance from the sensor to the buoy at rest, in metres. */
export const buoyRest = 0.6;
const reach = 0.4;

/**
 * The channel buoy on its spring, hung above a motion sensor that looks up at it: m ẍ = −k x − c ẋ, x upwards from rest.
 * Taken in the hand it stays where the hand is; let go, it swings.
 */
class Buoy implements Apparatus {
  private readonly controls = new Controls([
    control('mass', 'Mass', 'kg', [0.1, 1, 0.01], 0.5),
    control('stiffness', 'Stiffness of the spring', 'N/m', [5, 60, 0.5], 14),
    control('damping', 'Damping', 'kg/s', [0, 0.5, 0.005], 0.02),
    control('amplitude', 'Pull', 'm', [0.01, 0.2, 0.01], 0.04),
  ]);
  readonly stage = {
    apparatus: 'buoy',
    title: 'Channel buoy on its spring',
    controls: this.controls.list,
  };
  private state: [number, number] = [0, 0];
  private readonly hand = new Hand();

  step(seconds: number): void {
    if (this.hand.holds) {
      this.state = this.hand.follow(this.state, seconds);
      return;
    }
    const [mass, stiffness, damping] = ['mass', 'stiffness', 'damping'].map((key) =>
      this.controls.value(key),
    );
    this.state = rungeKutta(this.state, (x, v) => -(stiffness * x + damping * v) / mass, seconds);
  }

  get distance(): number {
    return buoyRest + this.state[0];
  }

  scene(): Record<string, number> {
    return { x: this.state[0], held: Number(this.hand.holds) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        this.controls.set(action.key, action.value);
        break;
      case 'grab':
        this.hand.hold(action.at, -reach, reach);
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
          this.hand.hold(-this.controls.value('amplitude'), -reach, reach);
          this.state = [-this.controls.value('amplitude'), 0];
        }
        break;
    }
  }
}

export function buoy(): Rig {
  const apparatus = new Buoy();
  return {
    apparatus,
    devices: [
      {
        code: 'K7-D',
        model: 'Motion sensor',
        battery: 0.83,
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
