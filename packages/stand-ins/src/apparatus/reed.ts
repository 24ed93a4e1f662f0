import { type ControlAction } from '@heuristor/contracts';
import { type Rig, channel } from '../devices/device';
import { type Apparatus, Controls, control } from './apparatus';

/**
 * The wave-driven reed, a sprung strip: ÿ = −ω₀² y − 2β ẏ + a cos φ, φ̇ = 2π f, deflections in millimetres. It is plucked, or
 * driven by an oscillator whose frequency and amplitude can be set. Its motion between two moments is the exact solution of the
 * equation for a drive of constant frequency; a new frequency goes on with the phase of the old one.
 */
class Reed implements Apparatus {
  readonly finest = 0.0005;
  private readonly controls = new Controls([
    control('natural', 'Natural frequency', 'Hz', [5, 40, 0.1], 17.3),
    control('quality', 'Quality factor', '1', [5, 200, 1], 45),
    control('pluck', 'Pluck', 'mm', [0.5, 10, 0.5], 4),
  ]);
  readonly stage = { apparatus: 'reed', title: 'Reed, plucked or driven', controls: this.controls.list };
  private y = 0;
  private v = 0;
  private phase = 0;
  private frequency = 15;
  private amplitude = 0;

  step(seconds: number): void {
    const omega0 = 2 * Math.PI * this.controls.value('natural');
    const beta = omega0 / (2 * this.controls.value('quality'));
    const omega = 2 * Math.PI * this.frequency;
    // The drive would bend the reed by `amplitude` millimetres if it were slow.
    const force = omega0 * omega0 * this.amplitude;
    const real = omega0 * omega0 - omega * omega;
    const imaginary = 2 * beta * omega;
    const size = force / (real * real + imaginary * imaginary);
    const driven = (phase: number) => ({
      y: size * (real * Math.cos(phase) + imaginary * Math.sin(phase)),
      v: size * omega * (imaginary * Math.cos(phase) - real * Math.sin(phase)),
    });
    const before = driven(this.phase);
    this.phase = (this.phase + omega * seconds) % (2 * Math.PI);
    const after = driven(this.phase);
    const free = { y: this.y - before.y, v: this.v - before.v };
    const damped = Math.sqrt(omega0 * omega0 - beta * beta);
    const [cosine, sine] = [Math.cos(damped * seconds), Math.sin(damped * seconds)];
    const decay = Math.exp(-beta * seconds);
    const b = (free.v + beta * free.y) / damped;
    this.y = after.y + decay * (free.y * cosine + b * sine);
    this.v =
      after.v + decay * (free.v * cosine - ((omega0 * omega0 * free.y + beta * free.v) / damped) * sine);
  }

  get deflection(): number {
    return this.y;
  }

  drive(key: string, value: number): void {
    if (key === 'frequency') this.frequency = value;
    if (key === 'amplitude') this.amplitude = value;
  }

  scene(): Record<string, number> {
    return { y: this.y, phase: this.phase };
  }

  control(action: ControlAction): void {
    if (action.action === 'set') this.controls.set(action.key, action.value);
    if (action.action !== 'do') return;
    if (action.key === 'pluck') [this.y, this.v] = [this.controls.value('pluck'), 0];
    if (action.key === 'still') [this.y, this.v] = [0, 0];
  }
}

export function reed(): Rig {
  const apparatus = new Reed();
  return {
    apparatus,
    devices: [
      {
        code: 'R5-T',
        model: 'Strain pick-up with driver',
        outputs: [
          control('frequency', 'Driver’s frequency', 'Hz', [1, 60, 0.01], 15),
          control('amplitude', 'Driver’s amplitude', 'mm', [0, 0.5, 0.01], 0),
        ],
        streams: [
          {
            key: 'strain',
            sampling: 'regular',
            rates: { lowest: 10, highest: 2000, usual: 500 },
            channels: [
              {
                channel: channel('deflection', 'y', 'deflection', 'mm', {
                  low: -15,
                  high: 15,
                  noise: 0.01,
                  resolution: 0.002,
                }),
                truth: () => apparatus.deflection,
                flaws: { offset: 0.83 },
              },
            ],
          },
        ],
      },
    ],
  };
}
