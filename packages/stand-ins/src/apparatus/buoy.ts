import { type ControlAction, type StageControl } from '@heuristor/contracts';
import { type Apparatus, controlValue, rungeKutta, setControl } from './apparatus';

/**
 * The channel buoy on its spring, hung above a motion sensor that looks up at it: m ẍ = −k x − c ẋ, x upwards from rest.
 * Taken in the hand it stays where the hand is; let go, it swings.
 */
export class Buoy implements Apparatus {
  /** Distance from the sensor to the buoy at rest, in metres. */
  static readonly restDistance = 0.6;
  private readonly controls: StageControl[] = [
    { key: 'mass', label: 'Mass', unit: 'kg', low: 0.1, high: 1, step: 0.01, value: 0.5 },
    {
      key: 'stiffness',
      label: 'Stiffness of the spring',
      unit: 'N/m',
      low: 5,
      high: 60,
      step: 0.5,
      value: 14,
    },
    { key: 'damping', label: 'Damping', unit: 'kg/s', low: 0, high: 0.5, step: 0.005, value: 0.02 },
    { key: 'amplitude', label: 'Pull', unit: 'm', low: 0.01, high: 0.2, step: 0.01, value: 0.04 },
  ];
  readonly stage = {
    apparatus: 'buoy' as const,
    title: 'Channel buoy on its spring',
    controls: this.controls,
  };
  private state: [number, number] = [0, 0];
  private held = false;

  step(seconds: number): void {
    if (this.held) return;
    const mass = controlValue(this.controls, 'mass');
    const stiffness = controlValue(this.controls, 'stiffness');
    const damping = controlValue(this.controls, 'damping');
    this.state = rungeKutta(this.state, (x, v) => -(stiffness * x + damping * v) / mass, seconds);
  }

  distance(): number {
    return Buoy.restDistance + this.state[0];
  }

  scene(): Record<string, number> {
    return { x: this.state[0], held: Number(this.held) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        setControl(this.controls, action.key, action.value);
        break;
      case 'grab':
        this.held = true;
        this.state = [Math.min(Math.max(action.at, -0.4), 0.4), 0];
        break;
      case 'release':
        this.held = false;
        break;
    }
  }
}
