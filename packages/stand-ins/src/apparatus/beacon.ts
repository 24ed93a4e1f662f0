import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel, switchChannel } from '../devices/device';
import { type Apparatus, Controls, control } from './apparatus';

/**
 * The beacon's flash circuit: a capacitor that is charged and discharged through a resistor, C dU/dt = (E − U)/R with E the
 * voltage behind the switch. Between two moments it follows the exact exponential.
 */
class Beacon implements Apparatus {
  private readonly controls = new Controls([
    control('resistance', 'Resistance', 'kOhm', [1, 100, 0.1], 10),
    control('capacitance', 'Capacitance', 'uF', [10, 1000, 1], 100),
    control('supply', 'Voltage of the supply', 'V', [1, 9, 0.1], 5),
  ]);
  readonly stage = { apparatus: 'beacon', title: 'Beacon’s flash circuit', controls: this.controls.list };
  private charge = 0;
  private closed = false;

  private get behind(): number {
    return this.closed ? this.controls.value('supply') : 0;
  }

  step(seconds: number): void {
    const time = this.controls.value('resistance') * 1e3 * this.controls.value('capacitance') * 1e-6;
    this.charge = this.behind + (this.charge - this.behind) * Math.exp(-seconds / time);
  }

  get voltage(): number {
    return this.charge;
  }

  /** In milliamperes, into the capacitor. */
  get current(): number {
    return (this.behind - this.charge) / this.controls.value('resistance');
  }

  get isClosed(): boolean {
    return this.closed;
  }

  scene(): Record<string, number> {
    return { voltage: this.charge, closed: Number(this.closed) };
  }

  control(action: ControlAction): void {
    if (action.action === 'set') this.controls.set(action.key, action.value);
    if (action.action === 'do' && action.key === 'switch') this.closed = !this.closed;
  }
}

export function beacon(): Rig {
  const apparatus = new Beacon();
  return {
    apparatus,
    devices: [
      {
        code: 'V1-B',
        model: 'Voltage and current sensor',
        streams: [
          {
            key: 'circuit',
            sampling: 'regular',
            rates: { lowest: 1, highest: 10_000, usual: 100 },
            channels: [
              {
                channel: channel(
                  'voltage',
                  'U',
                  'voltage',
                  'V',
                  { key: 'wide', label: 'wide', low: -10, high: 10, noise: 0.003, resolution: 0.005 },
                  { key: 'fine', label: 'fine', low: -1, high: 1, noise: 0.0003, resolution: 0.0005 },
                ),
                truth: () => apparatus.voltage,
              },
              {
                channel: channel('current', 'I', 'electric current', 'mA', {
                  low: -10,
                  high: 10,
                  noise: 0.002,
                  resolution: 0.002,
                }),
                truth: () => apparatus.current,
              },
            ],
          },
          {
            key: 'switch',
            sampling: 'events',
            edges: { of: 'switch', step: 1e-4 },
            channels: [
              {
                channel: switchChannel('switch', 'S', 'switch'),
                margin: () => (apparatus.isClosed ? -1 : 1),
              },
            ],
          },
        ],
      },
    ],
  };
}
