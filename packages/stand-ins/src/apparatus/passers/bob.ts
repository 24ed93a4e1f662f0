import { type ControlAction } from '@heuristor/contracts';
import { gravity, rungeKutta } from '../apparatus';
import { Hand } from '../hand';
import { type Passer, marginOf } from './passer';

const diameter = 0.02;
/** Per second. */
const damping = 0.01;
const farthest = 1.2;

/** A bob on a string, at any amplitude, that swings through the first beam where it hangs at rest. */
export class Bob implements Passer {
  private state: [number, number] = [0, 0];
  private readonly hand = new Hand();

  constructor(
    /** Length in metres, and how far it is pulled aside, in degrees. */
    private readonly pendulum: () => { length: number; aside: number },
  ) {}

  get place(): number {
    return this.state[0];
  }

  get held(): boolean {
    return this.hand.holds;
  }

  step(seconds: number): void {
    if (this.hand.holds) this.state = this.hand.follow(this.state, seconds);
    else {
      const { length } = this.pendulum();
      this.state = rungeKutta(
        this.state,
        (angle, speed) => -(gravity / length) * Math.sin(angle) - damping * speed,
        seconds,
      );
    }
  }

  margin(at: number): number {
    return marginOf(this.pendulum().length * Math.sin(this.state[0]), at - diameter / 2, at + diameter / 2);
  }

  act(action: ControlAction): void {
    if (action.action === 'grab') this.hand.hold(action.at, -farthest, farthest);
    if (action.action === 'release') this.hand.letGo();
    if (action.action !== 'do') return;
    const aside = -(this.pendulum().aside * Math.PI) / 180;
    if (action.key === 'ready') this.hand.hold(aside, -farthest, farthest);
    if (action.key === 'go') {
      if (!this.hand.holds) this.state = [aside, 0];
      this.hand.letGo();
    }
  }
}
