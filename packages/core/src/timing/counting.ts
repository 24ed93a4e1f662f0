import { blockingsOf, missingPasses } from './edges';
import { type EdgesOf, type Timed, addTimed, nothingTimed } from './passage';

export type CountingGives = 'count' | 'interval' | 'duration';

/** Anything that passes: how many have come, the time since the one before came, and how long it was in the beam. */
export function counting({ edges, second }: EdgesOf, gives: CountingGives): Timed {
  const { blockings, leftOut } = blockingsOf(edges, second);
  const passes = [...blockings].sort((a, b) => a.began - b.began);
  const missing = missingPasses(leftOut);
  /** Whether what came just before it counts. */
  const follows = (i: number) =>
    i > 0 && !missing.some((time) => time > passes[i - 1].began && time < passes[i].began);
  const timed = nothingTimed(leftOut);
  passes.forEach(({ began, ended, from, to }, i) => {
    switch (gives) {
      case 'count':
        addTimed(timed, began, i + 1, [], 0);
        break;
      case 'interval':
        if (follows(i))
          addTimed(
            timed,
            began,
            began - passes[i - 1].began,
            [
              { edge: passes[i - 1].from, weight: -1 },
              { edge: from, weight: 1 },
            ],
            0,
          );
        break;
      case 'duration':
        addTimed(
          timed,
          began,
          ended - began,
          [
            { edge: from, weight: -1 },
            { edge: to, weight: 1 },
          ],
          0,
        );
    }
  });
  return timed;
}
