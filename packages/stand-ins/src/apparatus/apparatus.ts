import { type ControlAction, type Settable, type Stage } from '@heuristor/contracts';

/** Normal gravity used by the simulation, m/s² (standard gravity, ISO 80000-3). */
export const gravity = 9.80665;

/** A simulated piece of apparatus: a true equation of motion, integrated finely, that a hand can take hold of. */
export interface Apparatus {
  readonly stage: Stage;
  /** Longest step of the integration in seconds; a millisecond where nothing is said. */
  readonly finest?: number;
  /** Moves on by a time of at most `finest`. */
  step(seconds: number): void;
  /** What the stage draws. */
  scene(): Record<string, number>;
  control(action: ControlAction): void;
  /** An output of one of the devices in front of it is set, such as the frequency of a driver. */
  drive?(key: string, value: number): void;
}

/** Controls of an apparatus, kept inside their reach. */
export class Controls {
  constructor(readonly list: Settable[]) {}

  /** Unknown keys are ignored. */
  set(key: string, value: number): void {
    const control = this.list.find((candidate) => candidate.key === key);
    if (control !== undefined) control.value = Math.min(Math.max(value, control.low), control.high);
  }

  value(key: string): number {
    const control = this.list.find((candidate) => candidate.key === key);
    if (control === undefined) throw new RangeError(`no control ${key}`);
    return control.value;
  }
}

/** A control in one line. */
export const control = (
  key: string,
  label: string,
  unit: string,
  [low, high, step]: readonly [number, number, number],
  value: number,
): Settable => ({ key, label, unit, low, high, step, value });

/** A control that chooses between kinds, the first of which has the value 0. */
export const choice = (key: string, label: string, choices: string[], value = 0): Settable => ({
  ...control(key, label, '1', [0, choices.length - 1, 1], value),
  choices,
});

/** One step of the classical Runge–Kutta method of fourth order for (position, speed). */
export function rungeKutta(
  [x, v]: readonly [number, number],
  acceleration: (x: number, v: number) => number,
  h: number,
): [number, number] {
  const a1 = acceleration(x, v);
  const [x2, v2] = [x + (h / 2) * v, v + (h / 2) * a1];
  const a2 = acceleration(x2, v2);
  const [x3, v3] = [x + (h / 2) * v2, v + (h / 2) * a2];
  const a3 = acceleration(x3, v3);
  const [x4, v4] = [x + h * v3, v + h * a3];
  const a4 = acceleration(x4, v4);
  return [x + (h / 6) * (v + 2 * v2 + 2 * v3 + v4), v + (h / 6) * (a1 + 2 * a2 + 2 * a3 + a4)];
}
