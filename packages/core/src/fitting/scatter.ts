/** How values scatter about their own mean. */
export interface Scatter {
  /** Σ(y − ȳ)². */
  total: number;
  constant: boolean;
}

export function scatterOf(y: Float64Array): Scatter {
  const n = y.length;
  const base = y[0];
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < n; i++) {
    const value = y[i] - base;
    sum += value;
    squares += value * value;
  }
  return { total: Math.max(squares - (sum * sum) / n, 0), constant: squares === 0 };
}
