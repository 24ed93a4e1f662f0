import { type ControlAction } from '@heuristor/contracts';
import { type Rig } from '../devices/device';
import { motionChannel, motionRates } from '../devices/motionSensor';
import { type Apparatus } from './apparatus';
import { Hand } from './hand';

const nearest = 0.2;
const farthest = 4;

/** Somebody who walks in front of a motion sensor, dragged by the hand of whoever looks at the Stage. */
class Walker implements Apparatus {
  readonly stage = { apparatus: 'walker', title: 'Somebody walking', controls: [] };
  private state: [number, number] = [1.5, 0];
  private readonly hand = new Hand();

  step(seconds: number): void {
    if (this.hand.holds) this.state = this.hand.follow(this.state, seconds);
  }

  get distance(): number {
    return this.state[0];
  }

  scene(): Record<string, number> {
    return { x: this.state[0], held: Number(this.hand.holds) };
  }

  control(action: ControlAction): void {
    if (action.action === 'grab') this.hand.hold(action.at, nearest, farthest);
    if (action.action === 'release') {
      this.hand.letGo();
      this.state = [this.state[0], 0];
    }
  }
}

export function walker(): Rig {
  const apparatus = new Walker();
  return {
    apparatus,
    devices: [
      {
        code: 'K9-W',
        keeps: 20_000,
        model: 'Motion sensor',
        battery: 0.49,
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
