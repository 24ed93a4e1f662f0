import { type ControlAction } from '@heuristor/contracts';
import { gravity } from '../apparatus';
import { type Passer, type Unsteady, marginOf } from './passer';

/** Spacing of the leading edges, width of a bar, and how many there are. */
export const barSpacing = 0.04;
const barWidth = 0.02;
const bars = 8;
const heldAbove = 0.03;
const lowest = -1.2;

/**
 * A chart weight with a barred card that falls freely through the beam. A card that is tilted in its plane shows the beam its
 * bars s/cos ϑ apart.
 */
export class Card implements Passer {
  private height = lowest;
  private speed = 0;
  held = false;
  private tilt = 0;

  constructor(
    /** Tilt that is set, in degrees, and that of the hand's unsteadiness. */
    private readonly tilts: () => { set: number; spread: number },
    private readonly unsteady: Unsteady,
  ) {}

  get place(): number {
    return this.height;
  }

  step(seconds: number): void {
    if (this.held || this.height <= lowest) return;
    this.height += this.speed * seconds - (gravity * seconds * seconds) / 2;
    this.speed -= gravity * seconds;
    if (this.height <= lowest) [this.height, this.speed] = [lowest, 0];
  }

  margin(at: number): number {
    const along = (-this.height - at) / Math.cos(this.tilt);
    const bar = Math.min(Math.max(Math.round((along - barWidth / 2) / barSpacing), 0), bars - 1);
    return marginOf(along, bar * barSpacing, bar * barSpacing + barWidth);
  }

  act(action: ControlAction): void {
    if (action.action === 'grab') this.hold(Math.min(Math.max(action.at, lowest), 0.3));
    if (action.action === 'do' && action.key === 'ready') this.hold(heldAbove);
    if (action.action === 'release' || (action.action === 'do' && action.key === 'go')) this.letGo();
  }

  private hold(height: number): void {
    [this.height, this.speed, this.held] = [height, 0, true];
  }

  private letGo(): void {
    if (!this.held) this.hold(heldAbove);
    const { set, spread } = this.tilts();
    this.tilt = ((set + spread * this.unsteady()) * Math.PI) / 180;
    this.held = false;
  }
}
