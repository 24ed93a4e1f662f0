import { type ControlAction, type StageControl } from '@heuristor/contracts';
import { type Apparatus, controlValue, rungeKutta, setControl } from './apparatus';

/** Normal gravity used by the simulation, m/s² (standard gravity, ISO 80000-3). */
export const gravity = 9.80665;

/**
 * The model lifeboat on its slipway, with the motion sensor at the top: s̈ = g sin θ − sign(ṡ) μ g cos θ, s down the slope,
 * and a sprung buffer with losses at the end. Below the angle of rest it stays where it is put.
 */
export class Lifeboat implements Apparatus {
  static readonly slipwayLength = 2.2;
  static readonly highest = 0.2;
  private readonly controls: StageControl[] = [
    { key: 'angle', label: 'Tilt of the slipway', unit: 'deg', low: 0, high: 20, step: 0.1, value: 6 },
    { key: 'friction', label: 'Rolling friction', unit: '1', low: 0, high: 0.05, step: 0.001, value: 0.01 },
    { key: 'buffer', label: 'Bounce of the buffer', unit: '1', low: 0, high: 0.9, step: 0.05, value: 0.4 },
  ];
  readonly stage = {
    apparatus: 'lifeboat' as const,
    title: 'Model lifeboat on its slipway',
    controls: this.controls,
  };
  private state: [number, number] = [0.3, 0];
  private held = true;

  step(seconds: number): void {
    if (this.held) return;
    const angle = (controlValue(this.controls, 'angle') * Math.PI) / 180;
    const drive = gravity * Math.sin(angle);
    const drag = controlValue(this.controls, 'friction') * gravity * Math.cos(angle);
    const [, speed] = this.state;
    if (speed === 0 && drive <= drag) return;
    const direction = speed === 0 ? 1 : Math.sign(speed);
    const [s, v] = rungeKutta(this.state, () => drive - direction * drag, seconds);
    // Friction stops, it never drives.
    this.state = [s, speed !== 0 && Math.sign(v) !== direction && drive <= drag ? 0 : v];
    if (s >= Lifeboat.slipwayLength && v > 0) {
      const back = v * controlValue(this.controls, 'buffer');
      this.state = [Lifeboat.slipwayLength, back < 0.01 ? 0 : -back];
      if (back < 0.01) this.held = true;
    }
  }

  distance(): number {
    return this.state[0];
  }

  scene(): Record<string, number> {
    return { s: this.state[0], held: Number(this.held) };
  }

  control(action: ControlAction): void {
    switch (action.action) {
      case 'set':
        setControl(this.controls, action.key, action.value);
        break;
      case 'grab':
        this.held = true;
        this.state = [Math.min(Math.max(action.at, Lifeboat.highest), Lifeboat.slipwayLength), 0];
        break;
      case 'release':
        this.held = false;
        break;
    }
  }
}
