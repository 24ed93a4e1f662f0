import { square } from '../elementary';
import { type Blocking, type LeftOutPass, blockingsOf, missingPasses } from './edges';
import { type EdgesOf, type Timed, addTimed, nothingTimed } from './passage';

export type FenceGives = 'position' | 'velocity' | 'acceleration';

/** Bars that come so many times later than the one before did after its own belong to another pass. */
const longestPause = 6;

/**
 * A fence of bars whose leading edges lie s apart: bar k is at x = k s when it blocks the beam, so that from one bar to the
 * next v = s/(t₂ − t₁) at (t₁ + t₂)/2, and from one such pair to the next a = (v₂ − v₁)/(difference of their moments). All
 * three are exact for a constant acceleration.
 */
export function fence({ edges, length: spacing, second }: EdgesOf, gives: FenceGives): Timed {
  const { blockings, leftOut } = blockingsOf(edges, second);
  const timed = nothingTimed(leftOut);
  for (const bars of passesOf(blockings, leftOut)) {
    switch (gives) {
      case 'position':
        bars.forEach(({ began }, k) =>
          addTimed(timed, began, k * spacing, positionWeights(bars, k, spacing), k),
        );
        break;
      case 'velocity':
        for (let k = 0; k + 1 < bars.length; k++) {
          const duration = bars[k + 1].began - bars[k].began;
          const byTime = spacing / square(duration);
          addTimed(
            timed,
            (bars[k].began + bars[k + 1].began) / 2,
            spacing / duration,
            [
              { edge: bars[k].from, weight: byTime },
              { edge: bars[k + 1].from, weight: -byTime },
            ],
            1 / duration,
          );
        }
        break;
      case 'acceleration':
        for (let k = 0; k + 2 < bars.length; k++) addAcceleration(timed, bars.slice(k, k + 3), spacing);
        break;
    }
  }
  return timed;
}

/** A bar's place is exact and its time is not: an error of the time is one of the place by the speed there. */
function positionWeights(bars: readonly Blocking[], k: number, spacing: number) {
  const [before, after] = [Math.max(k - 1, 0), Math.min(k + 1, bars.length - 1)];
  const speed = ((after - before) * spacing) / (bars[after].began - bars[before].began);
  return [{ edge: bars[k].from, weight: -speed }];
}

function addAcceleration(timed: Timed, [a, b, c]: readonly Blocking[], spacing: number): void {
  const [d1, d2] = [b.began - a.began, c.began - b.began];
  // The moments of the two speeds lie half the time from the first to the third edge apart.
  const apart = (d1 + d2) / 2;
  const value = (spacing / d2 - spacing / d1) / apart;
  const byD1 = spacing / square(d1) / apart - value / (2 * apart);
  const byD2 = -spacing / square(d2) / apart - value / (2 * apart);
  addTimed(
    timed,
    (a.began + 2 * b.began + c.began) / 4,
    value,
    [
      { edge: a.from, weight: -byD1 },
      { edge: b.from, weight: byD1 - byD2 },
      { edge: c.from, weight: byD2 },
    ],
    value / spacing,
  );
}

/** Bars that follow each other without a pause belong to one pass; a single bar is none. */
function passesOf(blockings: readonly Blocking[], leftOut: LeftOutPass[]): Blocking[][] {
  const bars = [...blockings].sort((a, b) => a.began - b.began);
  const passes: Blocking[][] = [];
  let pass: Blocking[] = [];
  const missing = missingPasses(leftOut);
  const end = () => {
    // Without one of its bars the others are not one spacing apart.
    const isWhole = !missing.some((time) => time > pass[0]?.began && time < pass[pass.length - 1]?.began);
    if (pass.length > 1 && !isWhole)
      leftOut.push({ time: pass[0].began, reason: 'one of its bars does not count' });
    else if (pass.length > 1) passes.push(pass);
    else if (pass.length === 1) leftOut.push({ time: pass[0].began, reason: 'only one bar passed' });
    pass = [];
  };
  for (const bar of bars) {
    const last = pass[pass.length - 1];
    if (last !== undefined) {
      const usual =
        pass.length > 1 ? last.began - pass[pass.length - 2].began : 2 * (last.ended - last.began);
      if (bar.began - last.began > longestPause * usual) end();
    }
    pass.push(bar);
  }
  end();
  leftOut.sort((a, b) => a.time - b.time);
  return passes;
}
