import { type ControlAction } from '@heuristor/contracts';
import { type Passer, type Unsteady, marginOf } from './passer';

const begin = -0.25;
const gone = 1;

/** A ball that is thrown through the beams at their height, each throw a little faster or slower than the one before. */
export class Ball implements Passer {
  place = gone;
  readonly held = false;
  speed = 0;

  constructor(
    /** Speed that is meant and its spread, in m/s, and diameter in metres. */
    private readonly throws: () => { speed: number; spread: number; diameter: number },
    private readonly unsteady: Unsteady,
  ) {}

  step(seconds: number): void {
    if (this.place < gone) this.place += this.speed * seconds;
  }

  margin(at: number): number {
    const { diameter } = this.throws();
    return this.place >= gone ? 1 : marginOf(at, this.place - diameter / 2, this.place + diameter / 2);
  }

  act(action: ControlAction): void {
    if (action.action !== 'do' || action.key !== 'go') return;
    const { speed, spread } = this.throws();
    this.place = begin;
    this.speed = Math.max(speed + spread * this.unsteady(), 0.1);
  }
}
