import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, control } from './apparatus';
import { Hand } from './hand';

const slack = 0.05;
const longest = 0.6;
/** From this stretch on it stiffens: it is not quite linear at the end. */
const linearUpTo = 0.35;

/** A cord that a hand stretches: slack at first, F = k s over most of its length, stiffer at the end. */
class Cord implements Apparatus {
  private readonly controls = new Controls([
    control('stiffness', 'Stiffness of the cord', 'N/m', [5, 60, 0.5], 24),
  ]);
  readonly stage = { apparatus: 'cord', title: 'Cord, stretched by hand', controls: this.controls.list };
  private state: [number, number] = [0, 0];
  private readonly hand = new Hand();

  step(seconds: number): void {
    // Left alone it springs back to where it just is not stretched.
    if (!this.hand.holds) this.state = [Math.max(this.state[0] - 2 * seconds, 0), 0];
    else this.state = this.hand.follow(this.state, seconds);
  }

  get end(): number {
    return this.state[0];
  }

  get pull(): number {
    const stretch = Math.max(this.state[0] - slack, 0);
    const beyond = Math.max(stretch - linearUpTo, 0);
    return this.controls.value('stiffness') * (stretch + 2.5 * beyond * beyond);
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
        this.hand.hold(action.at, 0, longest);
        break;
      case 'release':
        this.hand.letGo();
        break;
      case 'do':
        break;
    }
  }
}

export function cord(): Rig {
  const apparatus = new Cord();
  return {
    apparatus,
    devices: [
      {
        code: 'C6-F',
        model: 'Force and length sensor',
        battery: 0.44,
        streams: [
          {
            key: 'cord',
            sampling: 'regular',
            rates: { lowest: 1, highest: 200, usual: 50 },
            channels: [
              {
                channel: channel('force', 'F', 'force', 'N', {
                  low: -50,
                  high: 50,
                  noise: 0.01,
                  resolution: 0.002,
                }),
                truth: () => apparatus.pull,
                flaws: { offset: -0.08 },
              },
              {
                channel: channel('end', 'x', 'position', 'm', {
                  low: -1,
                  high: 2,
                  noise: 0.0001,
                  resolution: 0.0001,
                }),
                truth: () => apparatus.end,
              },
            ],
          },
        ],
      },
    ],
  };
}
