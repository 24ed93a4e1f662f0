import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, choice, control, gravity } from './apparatus';
import { Hand } from './hand';

const trackLength = 1.2;
/** Fall of the hanging weight until it meets the floor, in metres. */
const fall = 0.8;

/**
 * The lifeboat on a level track, pulled by a weight over a pulley: (m + M) ẍ = M g − sign(ẋ) μ m g while the string is taut,
 * and on its own once the weight has met the floor. Its hook feels the string: T = M (g − ẍ). With "keep the total" the mass
 * that is hung on is taken off the boat.
 */
class Trolley implements Apparatus {
  private readonly controls = new Controls([
    control('mass', 'Mass of the boat', 'kg', [0.2, 2, 0.01], 0.5),
    control('hanging', 'Mass that hangs', 'kg', [0.005, 0.2, 0.005], 0.05),
    choice('keepTotal', 'What is hung on', ['adds to the mass', 'is taken off the boat'], 1),
    control('friction', 'Rolling friction', '1', [0, 0.03, 0.001], 0.004),
  ]);
  readonly stage = {
    apparatus: 'trolley',
    title: 'Lifeboat pulled by a weight',
    controls: this.controls.list,
  };
  private state: [number, number] = [0, 0];
  private tension = 0;
  private caught = false;
  private readonly hand = new Hand();

  constructor() {
    this.hand.hold(0, 0, trackLength);
  }

  private get masses(): { boat: number; hanging: number } {
    const hanging = this.controls.value('hanging');
    const mass = this.controls.value('mass');
    return { hanging, boat: this.controls.value('keepTotal') === 1 ? mass - hanging : mass };
  }

  step(seconds: number): void {
    const { boat, hanging } = this.masses;
    const isTaut = this.state[0] < fall;
    if (this.hand.holds || this.caught) {
      const [before] = this.state;
      this.state = this.caught ? [before, 0] : this.hand.follow(this.state, seconds);
      this.tension = isTaut ? hanging * gravity : 0;
      return;
    }
    const [x, v] = this.state;
    const drag = this.controls.value('friction') * boat * gravity;
    const pull = isTaut ? hanging * gravity : 0;
    const moving = isTaut ? boat + hanging : boat;
    if (v === 0 && pull <= drag) {
      this.tension = pull;
      return;
    }
    const a = (pull - (v < 0 ? -drag : drag)) / moving;
    const speed = v + a * seconds;
    // Friction stops, it never drives.
    this.state =
      v > 0 && speed < 0 && pull <= drag ? [x, 0] : [x + v * seconds + (a * seconds ** 2) / 2, speed];
    this.tension = isTaut ? hanging * (gravity - a) : 0;
    if (this.state[0] >= trackLength) {
      this.state = [trackLength, 0];
      this.caught = true;
    }
  }

  get position(): number {
    return this.state[0];
  }

  get pull(): number {
    return this.tension;
  }

  scene(): Record<string, number> {
    return { x: this.state[0], held: Number(this.hand.holds), caught: Number(this.caught) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        this.controls.set(action.key, action.value);
        break;
      case 'grab':
        this.caught = false;
        this.hand.hold(action.at, 0, trackLength);
        break;
      case 'release':
        this.hand.letGo();
        break;
      case 'do':
        if (action.key === 'catch') this.caught = true;
        if (action.key === 'back') {
          this.caught = false;
          this.hand.hold(0, 0, trackLength);
          this.state = [0, 0];
        }
        break;
    }
  }
}

export function trolley(): Rig {
  const apparatus = new Trolley();
  return {
    apparatus,
    devices: [
      {
        code: 'K5-C',
        model: 'Cart with encoder',
        battery: 0.72,
        streams: [
          {
            key: 'cart',
            sampling: 'regular',
            rates: { lowest: 1, highest: 200, usual: 50 },
            channels: [
              {
                channel: channel('position', 'x', 'position', 'm', {
                  low: -10,
                  high: 10,
                  noise: 0.00005,
                  resolution: 0.0001,
                }),
                truth: () => apparatus.position,
              },
              {
                channel: channel('pull', 'F', 'force', 'N', {
                  low: -20,
                  high: 20,
                  noise: 0.004,
                  resolution: 0.001,
                }),
                truth: () => apparatus.pull,
                flaws: { offset: 0.06 },
              },
            ],
          },
        ],
      },
    ],
  };
}
