/**
 * How the noise of a series comes from the readings it was worked out from. A derived series is F·readings with a linear F;
 * if the readings' noise is independent with one variance σ², the derived noise has the covariance σ² F Fᵀ.
 */
export interface NoisePath {
  /** The readings at the root of the path. */
  readonly readings: Float64Array;
  /** Fᵀ w: turns weights on this series (length n) into weights on the readings (length of `readings`). */
  transpose(weights: Float64Array): Float64Array;
  /** Row i of F, or null where rows are not sparse (running integrals). */
  row(i: number): NoiseRow | null;
  /** Whether row i is the same as its neighbours' but for a shift: away from ends and missing readings. */
  isOrdinary(i: number): boolean;
  /** (F Fᵀ)ᵢᵢ for each value, or null where it would cost too much to know (running integrals). */
  rowNormsSquared(): Float64Array | null;
  /** True for readings themselves: independent noise, F the identity. */
  readonly independent: boolean;
}

/** A stretch of one row of F: weights on the readings from `start` on. */
export interface NoiseRow {
  readonly start: number;
  readonly weights: Float64Array;
}

/** The path of readings: their noise is their own. */
export function readingsNoise(readings: Float64Array): NoisePath {
  return {
    readings,
    independent: true,
    transpose: (weights) => weights,
    row: (i) => ({ start: i, weights: Float64Array.of(1) }),
    isOrdinary: () => true,
    rowNormsSquared: () => new Float64Array(readings.length).fill(1),
  };
}

/**
 * Standard deviation of the readings' own noise, from third differences, which a smooth motion hardly touches:
 * σ² = Σ(Δ³y)² / (20 (n − 3)). Missing readings break the differences. Source: Gasser, Sroka and Jennen-Steinmetz,
 * Biometrika 73 (1986) 625, for difference-based variance in general; 20 is the sum of squares of 1, −3, 3, −1.
 * Returns NaN with fewer than four neighbouring readings.
 */
export function noiseOfReadings(values: Float64Array, from = 0, to = values.length): number {
  let sum = 0;
  let count = 0;
  for (let i = from; i + 3 < to; i++) {
    const difference = values[i + 3] - 3 * values[i + 2] + 3 * values[i + 1] - values[i];
    if (Number.isNaN(difference)) continue;
    sum += difference * difference;
    count++;
  }
  return count === 0 ? NaN : Math.sqrt(sum / (20 * count));
}
