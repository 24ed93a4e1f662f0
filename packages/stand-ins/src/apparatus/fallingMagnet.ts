import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, control, gravity } from './apparatus';

/** Height of the hand above the coil, and how far below it the fall ends, in metres. */
const above = 0.25;
const below = 0.4;
const magneticConstant = 4e-7 * Math.PI;

/**
 * The hatch magnet dropped through a coil: a dipole m on the axis of N turns of radius a links the flux
 * Φ = µ₀ N m a² / 2(a² + z²)^(3/2), so U = −dΦ/dz · ż in free fall.
 */
class FallingMagnet implements Apparatus {
  private readonly controls = new Controls([
    control('moment', 'Moment of the magnet', 'A.m2', [0.1, 3, 0.05], 0.9),
    control('turns', 'Turns of the coil', '1', [50, 2000, 50], 600),
    control('radius', 'Radius of the coil', 'mm', [8, 40, 1], 15),
  ]);
  readonly stage = {
    apparatus: 'fallingMagnet',
    title: 'Hatch magnet through a coil',
    controls: this.controls.list,
  };
  private z = above;
  private v = 0;
  private falls = false;

  step(seconds: number): void {
    if (!this.falls) return;
    this.z += this.v * seconds - (gravity * seconds * seconds) / 2;
    this.v -= gravity * seconds;
    if (this.z < -below) [this.falls, this.v] = [false, 0];
  }

  /** Flux through the whole coil with the magnet at a height, in webers. */
  fluxAt(z: number): number {
    const a = this.controls.value('radius') * 1e-3;
    const moment = this.controls.value('moment') * this.controls.value('turns');
    return (magneticConstant * moment * a * a) / (2 * (a * a + z * z) ** 1.5);
  }

  /** In millivolts. */
  get voltage(): number {
    const a = this.controls.value('radius') * 1e-3;
    return ((3 * this.z * this.fluxAt(this.z) * this.v) / (a * a + this.z * this.z)) * 1000;
  }

  scene(): Record<string, number> {
    return { z: this.z, held: Number(!this.falls && this.z > 0), voltage: this.voltage };
  }

  control(action: ControlAction): void {
    if (action.action === 'set') this.controls.set(action.key, action.value);
    if (action.action === 'grab') [this.z, this.v, this.falls] = [Math.max(action.at, 0.02), 0, false];
    if (action.action === 'release') this.falls = this.z > -below;
    if (action.action === 'do' && action.key === 'up') [this.z, this.v, this.falls] = [above, 0, false];
  }
}

export function fallingMagnet(): Rig {
  const apparatus = new FallingMagnet();
  return {
    apparatus,
    devices: [
      {
        code: 'V4-C',
        model: 'Fast voltage sensor',
        streams: [
          {
            key: 'voltage',
            sampling: 'regular',
            rates: { lowest: 100, highest: 50_000, usual: 10_000 },
            channels: [
              {
                channel: channel(
                  'voltage',
                  'U',
                  'voltage',
                  'mV',
                  { key: 'wide', label: 'wide', low: -10_000, high: 10_000, noise: 2, resolution: 2 },
                  { key: 'fine', label: 'fine', low: -1000, high: 1000, noise: 0.3, resolution: 0.5 },
                ),
                truth: () => apparatus.voltage,
              },
            ],
          },
        ],
      },
    ],
  };
}
