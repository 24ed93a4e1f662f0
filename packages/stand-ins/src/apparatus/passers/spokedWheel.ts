import { type ControlAction } from '@heuristor/contracts';
import { type Passer } from './passer';

/** How quickly it slows down, per second. */
export const slowing = 0.05;

/** A wheel with spokes as wide as the gaps between them, which turns ever more slowly: ω = ω₀ exp(−kt). */
export class SpokedWheel implements Passer {
  /** Angle in radians. */
  place = 0;
  private speed = 0;
  readonly held = false;

  constructor(
    /** Turns a second that it is spun with, and its spokes. */
    private readonly wheel: () => { turns: number; spokes: number },
  ) {}

  step(seconds: number): void {
    const decay = Math.exp(-slowing * seconds);
    this.place += (this.speed * (1 - decay)) / slowing;
    this.speed *= decay;
  }

  /** Only the first beam looks through the wheel. */
  margin(at: number): number {
    if (at !== 0) return 1;
    const turn = (this.place * this.wheel().spokes) / (2 * Math.PI) + 0.75;
    const share = turn - Math.floor(turn);
    return share < 0.5 ? -Math.min(share, 0.5 - share) : Math.min(share - 0.5, 1 - share);
  }

  act(action: ControlAction): void {
    if (action.action === 'do' && action.key === 'go') this.speed = 2 * Math.PI * this.wheel().turns;
    if (action.action === 'do' && action.key === 'ready') this.speed = 0;
  }
}
