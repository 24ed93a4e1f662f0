import { type ControlAction, type Hello, type StageControl } from '@heuristor/contracts';

/** A simulated piece of apparatus: a true equation of motion, integrated finely, that a hand can take hold of. */
export interface Apparatus {
  readonly stage: NonNullable<Hello['stage']>;
  /** Moves on by a time of at most a few milliseconds. */
  step(seconds: number): void;
  /** Distance from the motion sensor in front of it, in metres. */
  distance(): number;
  /** What the stage draws. */
  scene(): Record<string, number>;
  control(action: ControlAction): void;
}

/** Sets one of the controls, kept inside its reach; unknown keys are ignored. */
export function setControl(controls: StageControl[], key: string, value: number): void {
  const control = controls.find((candidate) => candidate.key === key);
  if (control !== undefined) control.value = Math.min(Math.max(value, control.low), control.high);
}

/** The value of a control that is known to be there. */
export function controlValue(controls: readonly StageControl[], key: string): number {
  const control = controls.find((candidate) => candidate.key === key);
  if (control === undefined) throw new RangeError(`no control ${key}`);
  return control.value;
}

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
