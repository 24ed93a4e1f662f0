import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, choice, control, gravity } from './apparatus';
import { Hand } from './hand';

const trackLength = 1.2;
/** Fall of the hanging weight until it meets the floor, in metres. */
const fall = 0.8;

/** Speed that a push gives it, in m/s. */
const push = 1.1;

/**
 * The lifeboat with encoder and force hook on a track that is level or rises by θ, pulled by a weight over a pulley at its end,
 * or on its own: (m + M) ẍ = M g − m g sin θ − sign(ẋ) μ m g cos θ while the string is taut; without M once the weight has met
 * the floor, or without a string. The hook feels the string: T = M (g − ẍ). What rolls back over that place takes the weight
 * up with it and shares its momentum. With "keep the total" the mass that is hung on is taken off the boat.
 */
class Trolley implements Apparatus {
  private readonly controls = new Controls([
    control('mass', 'Mass of the boat', 'kg', [0.2, 2, 0.01], 0.5),
    control('hanging', 'Mass that hangs', 'kg', [0.005, 0.2, 0.005], 0.05),
    choice('keepTotal', 'What is hung on', ['adds to the mass', 'is taken off the boat'], 1),
    choice('string', 'String over the pulley', ['none: it rolls alone', 'with the weight'], 1),
    control('rise', 'Rise of the track', 'deg', [-10, 10, 0.1], 0),
    control('friction', 'Rolling friction', '1', [0, 0.03, 0.001], 0.004),
  ]);
  readonly stage = {
    apparatus: 'trolley',
    title: 'Lifeboat with encoder and hook',
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
    const isTaut = this.isTaut(this.state[0]);
    if (this.hand.holds || this.caught) {
      const [before] = this.state;
      this.state = this.caught ? [before, 0] : this.hand.follow(this.state, seconds);
      this.tension = isTaut ? hanging * gravity : 0;
      return;
    }
    const rise = (this.controls.value('rise') * Math.PI) / 180;
    const drive = (isTaut ? hanging * gravity : 0) - boat * gravity * Math.sin(rise);
    const drag = this.controls.value('friction') * boat * gravity * Math.cos(rise);
    const [x, v] = this.state;
    const leansBack = x <= 0 && drive < 0;
    if (v === 0 && (Math.abs(drive) <= drag || leansBack)) {
      this.tension = isTaut ? hanging * gravity : 0;
      return;
    }
    const direction = Math.sign(v === 0 ? drive : v);
    const a = (drive - direction * drag) / (isTaut ? boat + hanging : boat);
    this.tension = isTaut ? hanging * (gravity - a) : 0;
    this.state = this.moved(a, direction, Math.abs(drive) <= drag, seconds);
    // The weight leaves the floor with a jerk.
    if (!isTaut && this.isTaut(this.state[0])) this.state[1] *= boat / (boat + hanging);
  }

  private isTaut(x: number): boolean {
    return this.controls.value('string') === 1 && x < fall;
  }

  private moved(a: number, direction: number, isHeldByFriction: boolean, seconds: number): [number, number] {
    const [x, v] = this.state;
    const speed = v + a * seconds;
    // Friction stops, it never drives.
    if (v !== 0 && Math.sign(speed) !== direction && isHeldByFriction) return [x, 0];
    const next = x + v * seconds + (a * seconds ** 2) / 2;
    if (next >= trackLength) this.caught = true;
    if (next >= trackLength || next <= 0) return [Math.min(Math.max(next, 0), trackLength), 0];
    return [next, speed];
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
        if (action.key === 'push') {
          this.caught = false;
          this.hand.letGo();
          this.state = [this.state[0], push];
        }
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
