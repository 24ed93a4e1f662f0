import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, control } from './apparatus';

/** Time between two pulses, in seconds. */
const pulseEvery = 0.5;

/**
 * A coil and a capacitor, rung by a pulse: Ü + (R/L) U̇ + U/(LC) = 0 after it, U from the pulse's height. Between two moments
 * it follows the exact solution.
 */
class Ringing implements Apparatus {
  readonly finest = 0.0005;
  private readonly controls = new Controls([
    control('inductance', 'Inductance of the coil', 'mH', [1, 100, 0.5], 10),
    control('capacitance', 'Capacitance', 'nF', [10, 2000, 10], 470),
    control('resistance', 'Resistance of the coil', 'Ohm', [1, 100, 0.5], 8),
    control('pulse', 'Height of the pulse', 'V', [0.5, 8, 0.1], 4),
  ]);
  readonly stage = { apparatus: 'ringing', title: 'Coil and capacitor', controls: this.controls.list };
  private voltage = 0;
  private change = 0;
  private sincePulse = 0;
  private repeats = false;

  step(seconds: number): void {
    const inductance = this.controls.value('inductance') * 1e-3;
    const omega0 = 1 / Math.sqrt(inductance * this.controls.value('capacitance') * 1e-9);
    const beta = this.controls.value('resistance') / (2 * inductance);
    const damped = Math.sqrt(Math.max(omega0 ** 2 - beta ** 2, 1e-12));
    const [cosine, sine] = [Math.cos(damped * seconds), Math.sin(damped * seconds)];
    const decay = Math.exp(-beta * seconds);
    const { voltage: u, change: v } = this;
    this.voltage = decay * (u * cosine + ((v + beta * u) / damped) * sine);
    this.change = decay * (v * cosine - ((omega0 ** 2 * u + beta * v) / damped) * sine);
    this.sincePulse += seconds;
    if (this.repeats && this.sincePulse >= pulseEvery) this.ring();
  }

  private ring(): void {
    this.voltage = this.controls.value('pulse');
    this.change = 0;
    this.sincePulse = 0;
  }

  get reading(): number {
    return this.voltage;
  }

  scene(): Record<string, number> {
    return { voltage: this.voltage, since: this.sincePulse, repeats: Number(this.repeats) };
  }

  control(action: ControlAction): void {
    if (action.action === 'set') this.controls.set(action.key, action.value);
    if (action.action !== 'do') return;
    if (action.key === 'pulse') this.ring();
    if (action.key === 'repeat') this.repeats = !this.repeats;
  }
}

export function ringing(): Rig {
  const apparatus = new Ringing();
  return {
    apparatus,
    devices: [
      {
        code: 'V2-L',
        model: 'Fast voltage sensor',
        streams: [
          {
            key: 'voltage',
            sampling: 'regular',
            rates: {
              lowest: 100,
              highest: 50_000,
              usual: 20_000,
              only: [100, 1000, 5000, 10_000, 20_000, 50_000],
            },
            channels: [
              {
                channel: channel('voltage', 'U', 'voltage', 'V', {
                  low: -10,
                  high: 10,
                  noise: 0.004,
                  resolution: 0.005,
                }),
                truth: () => apparatus.reading,
              },
            ],
          },
        ],
      },
    ],
  };
}
