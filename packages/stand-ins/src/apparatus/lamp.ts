import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, choice, control } from './apparatus';

const rampSeconds = 6;
/** Cold resistance in ohms, growth a kelvin (tungsten, from memory: 0.0045), cooling in W/K, heat capacity in J/K. */
const filament = { cold: 4, growth: 0.0045, cooling: 0.0009, heat: 0.0006 };

/**
 * A lamp, or a resistor, on a ramp of voltage: the resistor keeps I = U/R; the filament warms, R = R₀ (1 + α ΔT) with
 * C dΔT/dt = U²/R − k ΔT.
 */
class Lamp implements Apparatus {
  private readonly controls = new Controls([
    choice('lamp', 'In the circuit', ['resistor', 'lamp'], 1),
    control('resistance', 'Resistance of the resistor', 'Ohm', [5, 100, 0.5], 22),
    control('top', 'Top of the ramp', 'V', [1, 8, 0.5], 6),
  ]);
  readonly stage = { apparatus: 'lamp', title: 'Lamp and resistor on a ramp', controls: this.controls.list };
  private since = rampSeconds;
  private warmth = 0;

  get voltage(): number {
    const share = this.since / rampSeconds;
    return this.since >= rampSeconds
      ? 0
      : this.controls.value('top') * (share < 0.5 ? 2 * share : 2 - 2 * share);
  }

  private get resistance(): number {
    return this.controls.value('lamp') === 1
      ? filament.cold * (1 + filament.growth * this.warmth)
      : this.controls.value('resistance');
  }

  /** In milliamperes. */
  get current(): number {
    return (this.voltage / this.resistance) * 1000;
  }

  step(seconds: number): void {
    this.since += seconds;
    const power = this.controls.value('lamp') === 1 ? this.voltage ** 2 / this.resistance : 0;
    this.warmth += (seconds * (power - filament.cooling * this.warmth)) / filament.heat;
  }

  scene(): Record<string, number> {
    return { voltage: this.voltage, current: this.current, glow: Math.min(this.warmth / 1500, 1) };
  }

  control(action: ControlAction): void {
    if (action.action === 'set') this.controls.set(action.key, action.value);
    if (action.action === 'do' && action.key === 'ramp') this.since = 0;
  }
}

export function lamp(): Rig {
  const apparatus = new Lamp();
  return {
    apparatus,
    devices: [
      {
        code: 'V3-G',
        model: 'Voltage and current sensor',
        streams: [
          {
            key: 'circuit',
            sampling: 'regular',
            rates: { lowest: 1, highest: 1000, usual: 100 },
            channels: [
              {
                channel: channel('voltage', 'U', 'voltage', 'V', {
                  low: -10,
                  high: 10,
                  noise: 0.003,
                  resolution: 0.005,
                }),
                truth: () => apparatus.voltage,
              },
              {
                channel: channel('current', 'I', 'electric current', 'mA', {
                  low: -1000,
                  high: 1000,
                  noise: 0.4,
                  resolution: 0.5,
                }),
                truth: () => apparatus.current,
              },
            ],
          },
        ],
      },
    ],
  };
}
