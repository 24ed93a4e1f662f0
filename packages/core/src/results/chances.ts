/** A probability as people say it: “42 of 100 cases”, “one case of 210”. */
export function inCases(chance: number): string {
  if (chance >= 0.1) return `${Math.round(100 * chance)} of 100 cases`;
  if (chance < 1e-6) return 'less than one case of a million';
  return `one case of ${thousands(Number((1 / chance).toPrecision(2)))}`;
}

/** A count with a thin space between its thousands. */
const thousands = (count: number): string => String(count).replace(/(?<=\d)(?=(\d{3})+$)/g, '\u202f');
