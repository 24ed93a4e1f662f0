import { type Apparatus } from '../apparatus/apparatus';
import { type MotionSensor } from './motionSensor';

/** Longest step of the integration, s. */
const finest = 0.001;

/** An apparatus with a sensor in front of it, moved on in time and read at given moments. */
export class SampledApparatus {
  private now = 0;

  constructor(
    readonly apparatus: Apparatus,
    private readonly sensor: MotionSensor,
  ) {}

  /** Moves the apparatus on to a moment, in seconds since the start. */
  advanceTo(moment: number): void {
    while (this.now < moment) {
      const step = Math.min(finest, moment - this.now);
      this.apparatus.step(step);
      // The last step lands on the moment itself, whatever rounding says.
      this.now = step < finest ? moment : this.now + step;
    }
  }

  readAt(moment: number): number {
    this.advanceTo(moment);
    return this.sensor.read(this.apparatus.distance());
  }
}
