/**
 * How far the number of runs of one sign, among values in their order, lies from what chance makes of them: in standard
 * deviations, negative where there are too few, so that neighbours go together (Wald and Wolfowitz, Ann. Math. Statist. 11 (1940)
 * 147; mean and variance as there). Zeros are left out. NaN where all have one sign, or fewer than 10 are there.
 */
export function runsTest(values: ArrayLike<number>): number {
  let [above, below, runs, last] = [0, 0, 0, 0];
  for (let i = 0; i < values.length; i++) {
    const sign = Math.sign(values[i]);
    if (sign === 0 || Number.isNaN(sign)) continue;
    if (sign > 0) above++;
    else below++;
    if (sign !== last) runs++;
    last = sign;
  }
  const n = above + below;
  if (n < 10 || above === 0 || below === 0) return NaN;
  const mean = (2 * above * below) / n + 1;
  const variance = ((mean - 1) * (mean - 2)) / (n - 1);
  return (runs - mean) / Math.sqrt(variance);
}
