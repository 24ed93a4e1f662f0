import { type ControlAction } from '@heuristor/contracts';
import { gravity } from '../apparatus';
import { type Passer, marginOf } from './passer';

/** From the front of the first flag to that of the second, in metres. */
export const flagSpacing = 0.1;
const begin = -0.12;
const end = 0.9;

/** A cart with one flag or two that rolls down a slope through the beams. */
export class FlagCart implements Passer {
  /** Front of the first flag. */
  place = begin;
  private speed = 0;
  held = true;

  constructor(
    /** Slope in degrees, the length of a flag in metres, and how many there are. */
    private readonly track: () => { slope: number; flag: number; flags: number },
  ) {}

  step(seconds: number): void {
    if (this.held || this.place >= end) return;
    const acceleration = gravity * Math.sin((this.track().slope * Math.PI) / 180);
    this.place += this.speed * seconds + (acceleration * seconds * seconds) / 2;
    this.speed += acceleration * seconds;
    if (this.place >= end) [this.place, this.speed] = [end, 0];
  }

  margin(at: number): number {
    const { flag, flags } = this.track();
    const second = this.place - flagSpacing;
    return Math.min(
      marginOf(at, this.place - flag, this.place),
      flags > 1 ? marginOf(at, second - flag, second) : Infinity,
    );
  }

  act(action: ControlAction): void {
    if (action.action === 'grab') this.hold(Math.min(Math.max(action.at, begin), end));
    if (action.action === 'do' && action.key === 'ready') this.hold(begin);
    if (action.action === 'release') this.held = false;
    if (action.action === 'do' && action.key === 'go') {
      if (!this.held) this.hold(begin);
      this.held = false;
    }
  }

  private hold(place: number): void {
    [this.place, this.speed, this.held] = [place, 0, true];
  }
}
