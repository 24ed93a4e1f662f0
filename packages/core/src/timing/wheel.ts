import { blockingsOf, missingPasses } from './edges';
import { type EdgesOf, type Timed, addTimed, nothingTimed } from './passage';

export type WheelGives = 'angle' | 'angularSpeed';

/**
 * A wheel with N spokes, the leading edges of which lie 2π/N apart: its angle in radians when one of them comes, and from one
 * to the next its angular speed ω = (2π/N)/(t₂ − t₁) at (t₁ + t₂)/2. Which way it turns a single beam cannot tell.
 */
export function wheel({ edges, second }: EdgesOf, spokes: number, gives: WheelGives): Timed {
  const { blockings, leftOut } = blockingsOf(edges, second);
  const comings = [...blockings].sort((a, b) => a.began - b.began);
  const missing = missingPasses(leftOut);
  /** How many spokes that do not count came before a moment: the wheel turned on all the same. */
  const missingBefore = (moment: number) => missing.filter((time) => time < moment).length;
  const timed = nothingTimed(leftOut);
  const apart = (2 * Math.PI) / spokes;
  const angles = comings.map(({ began }, i) => (i + missingBefore(began)) * apart);
  const speed = (i: number) => (angles[i + 1] - angles[i]) / (comings[i + 1].began - comings[i].began);
  comings.forEach(({ began, from }, i) => {
    const isLast = i + 1 === comings.length;
    if (gives === 'angle') {
      const here = comings.length < 2 ? 0 : speed(isLast ? i - 1 : i);
      addTimed(timed, began, angles[i] - angles[0], [{ edge: from, weight: -here }], 0);
    } else if (!isLast) {
      const next = comings[i + 1];
      const byTime = speed(i) / (next.began - began);
      addTimed(
        timed,
        (began + next.began) / 2,
        speed(i),
        [
          { edge: from, weight: byTime },
          { edge: next.from, weight: -byTime },
        ],
        0,
      );
    }
  });
  return timed;
}
