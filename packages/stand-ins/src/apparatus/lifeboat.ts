import { type ControlAction } from '@heuristor/contracts';
import { type Rig } from '../devices/device';
import { motionChannel, motionRates } from '../devices/motionSensor';
import { type Apparatus, Controls, control, gravity, rungeKutta } from './apparatus';
import { Hand } from './hand';

const slipwayLength = 2.2;
const highest = 0.2;
const top = 0.3;

/**
 * The model lifeboat on its slipway, with the motion sensor at the top: s̈ = g sin θ − sign(ṡ) μ g cos θ, s down the slope,
 * and a sprung buffer with losses at the end. Below the angle of rest it stays where it is put. A hand can push it: it goes on
 * with the speed that the hand gave it.
 */
class Lifeboat implements Apparatus {
  private readonly controls = new Controls([
    control('angle', 'Tilt of the slipway', 'deg', [0, 20, 0.1], 6),
    control('friction', 'Rolling friction', '1', [0, 0.05, 0.001], 0.01),
    control('buffer', 'Bounce of the buffer', '1', [0, 0.9, 0.05], 0.4),
  ]);
  readonly stage = {
    apparatus: 'lifeboat',
    title: 'Model lifeboat on its slipway',
    controls: this.controls.list,
  };
  private state: [number, number] = [top, 0];
  private readonly hand = new Hand();
  private isParked = false;

  constructor() {
    this.hand.hold(top, highest, slipwayLength);
  }

  step(seconds: number): void {
    if (this.hand.holds) {
      this.state = this.hand.follow(this.state, seconds);
      return;
    }
    if (this.isParked) return;
    const angle = (this.controls.value('angle') * Math.PI) / 180;
    const drive = gravity * Math.sin(angle);
    const drag = this.controls.value('friction') * gravity * Math.cos(angle);
    const [, speed] = this.state;
    if (speed === 0 && drive <= drag) return;
    const direction = speed === 0 ? 1 : Math.sign(speed);
    const [s, v] = rungeKutta(this.state, () => drive - direction * drag, seconds);
    // Friction stops, it never drives.
    this.state = [s, speed !== 0 && Math.sign(v) !== direction && drive <= drag ? 0 : v];
    if (s <= highest && v < 0) this.state = [highest, -v * this.controls.value('buffer')];
    if (s >= slipwayLength && v > 0) {
      const back = v * this.controls.value('buffer');
      this.state = [slipwayLength, back < 0.01 ? 0 : -back];
      this.isParked = back < 0.01;
    }
  }

  get distance(): number {
    return this.state[0];
  }

  scene(): Record<string, number> {
    return { s: this.state[0], held: Number(this.hand.holds || this.isParked) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        this.controls.set(action.key, action.value);
        break;
      case 'grab':
        this.isParked = false;
        this.hand.hold(action.at, highest, slipwayLength);
        break;
      case 'release':
        this.hand.letGo();
        this.isParked = false;
        break;
      case 'do':
        if (action.key !== 'top') break;
        this.isParked = false;
        this.hand.hold(top, highest, slipwayLength);
        this.state = [top, 0];
        break;
    }
  }
}

export function lifeboat(): Rig {
  const apparatus = new Lifeboat();
  return {
    apparatus,
    devices: [
      {
        code: 'K3-L',
        model: 'Motion sensor',
        battery: 0.64,
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
