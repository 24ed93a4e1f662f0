import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, control, gravity } from './apparatus';

/** Specific gas constant of dry air, J/(kg K). Source: ISO 2533:1975. */
const gasConstant = 287.05287;
/** Height of the stair in metres. */
export const stairHeight = 1.4;
/** Pressure at the foot of the stair in Pa, and temperature in K. */
const foot = { pressure: 101_490, temperature: 292.4 };

/**
 * The quay's barometer and thermometer, at the foot or at the top of a stair: p = p₀ exp(−g h / R T), the barometric formula of an
 * isothermal air. The pressure wanders a little with the weather, and the thermometer takes its time.
 */
class Weather implements Apparatus {
  private readonly controls = new Controls([
    control('height', 'Height above the foot of the stair', 'm', [0, 2.5, 0.1], 0),
    control('warmth', 'Temperature at the sensor', 'K', [273, 313, 0.5], foot.temperature),
  ]);
  readonly stage = {
    apparatus: 'weather',
    title: 'Barometer and thermometer of the quay',
    controls: this.controls.list,
  };
  private seconds = 0;

  step(seconds: number): void {
    this.seconds += seconds;
  }

  /** In hectopascals. */
  get pressure(): number {
    const weather = 3 * Math.sin(this.seconds / 1400);
    const lower = (gravity * this.controls.value('height')) / (gasConstant * foot.temperature);
    return ((foot.pressure + weather) * Math.exp(-lower)) / 100;
  }

  get temperature(): number {
    return this.controls.value('warmth');
  }

  scene(): Record<string, number> {
    return { pressure: this.pressure };
  }

  control(action: ControlAction): void {
    if (action.action === 'set') this.controls.set(action.key, action.value);
    if (action.action !== 'do') return;
    if (action.key === 'foot') this.controls.set('height', 0);
    if (action.key === 'top') this.controls.set('height', stairHeight);
  }
}

export function weather(): Rig {
  const apparatus = new Weather();
  return {
    apparatus,
    devices: [
      {
        code: 'Q8-P',
        keeps: 200_000,
        model: 'Barometer and thermometer',
        battery: 0.95,
        streams: [
          {
            key: 'air',
            sampling: 'regular',
            rates: { lowest: 1 / 60, highest: 5, usual: 1 },
            channels: [
              {
                channel: channel('pressure', 'p', 'pressure', 'hPa', {
                  low: 300,
                  high: 1100,
                  // Assumed.
                  noise: 0.01,
                  resolution: 0.001,
                }),
                truth: () => apparatus.pressure,
                flaws: { driftPerHour: 0.02 },
              },
              {
                channel: channel('temperature', 'T', 'temperature', 'K', {
                  low: 233,
                  high: 373,
                  noise: 0.03,
                  resolution: 0.01,
                }),
                truth: () => apparatus.temperature,
                flaws: { lagSeconds: 20 },
              },
            ],
          },
        ],
      },
    ],
  };
}
