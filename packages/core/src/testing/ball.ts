/** Standard gravity is 9.80665 m/s²; a laboratory has about this. */
const g = 9.81;

/**
 * The height of a ball that is dropped and bounces, by the equations of free fall: each bounce gives back a share of its speed.
 * @param drop height from which it is let go, in metres @param released when, in seconds @param count how many bounces
 */
export function ballHeights({
  drop,
  bounce,
  released,
  count,
}: {
  drop: number;
  bounce: number;
  released: number;
  count: number;
}): { at: (t: number) => number; impacts: number[]; heights: number[] } {
  const impacts = [released + Math.sqrt((2 * drop) / g)];
  const heights = [drop];
  const speeds: number[] = [];
  let speed = bounce * Math.sqrt(2 * g * drop);
  for (let i = 0; i < count; i++) {
    speeds.push(speed);
    impacts.push(impacts[i] + (2 * speed) / g);
    heights.push(speed ** 2 / (2 * g));
    speed *= bounce;
  }
  const at = (t: number): number => {
    if (t < released) return drop;
    if (t < impacts[0]) return drop - (g * (t - released) ** 2) / 2;
    const flight = impacts.findLastIndex((moment) => moment <= t);
    const since = t - impacts[flight];
    return flight >= count ? 0 : Math.max(speeds[flight] * since - (g * since ** 2) / 2, 0);
  };
  return { at, impacts, heights };
}
