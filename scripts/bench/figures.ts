import { performance } from 'node:perf_hooks';
import { say } from '../plain';

/** One measured figure beside its budget. */
export interface Figure {
  what: string;
  measured: string;
  budget: string;
  ratio?: string;
}

export const milliseconds = (value: number): string => `${value.toFixed(value < 10 ? 1 : 0)} ms`;

/** The middle of several runs of `work`, in ms, after some to warm up. */
export function median(work: () => void, repeats = 11): number {
  const times: number[] = [];
  for (let i = 0; i < repeats + 3; i++) {
    const began = performance.now();
    work();
    if (i >= 3) times.push(performance.now() - began);
  }
  return quantile(times, 0.5);
}

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(Math.floor(sorted.length * share), sorted.length - 1)];
}

export function print(figures: readonly Figure[]): void {
  for (const { what, measured, budget, ratio } of figures)
    say(`${what}\n    ${measured}   (budget: ${budget})${ratio === undefined ? '' : `   ${ratio}`}`);
}
