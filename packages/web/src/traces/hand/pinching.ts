import { ofAxis } from '../axes/axisScale';
import { axisKey } from '../axes/scaling';
import { pinchedAxis } from '../pinch';
import { type Doing, type Finger, type HandEffect } from './hand';
import { type Scene } from './scene';

type Pinching = Extract<Doing, { is: 'pinching' }>;

/** Two fingers take hold of the axes, of time and of the trace between them. */
export function pinchBegun([a, b]: readonly [Finger, Finger], scene: Scene): Pinching {
  return {
    is: 'pinching',
    began: [a, b],
    sight: scene.sight,
    found: scene.traceAt((a.at.y + b.at.y) / 2),
  };
}

/** The axes turn so that what was under the fingers stays under them. */
export function pinched(
  { began: [c, d], sight, found }: Pinching,
  fingers: readonly Finger[],
  { width }: Scene,
): HandEffect[] {
  const [a, b] = [c, d].map(({ id }) => fingers.find((finger) => finger.id === id)?.at);
  if (a === undefined || b === undefined) return [];
  const effects: HandEffect[] = [{ do: 'hold' }];
  const across = pinchedAxis(sight, width, [c.at.x, d.at.x], [a.x, b.x]);
  if (across !== null) effects.push({ do: 'look', sight: across });
  if (found === null) return effects;
  const { trace, plot } = found;
  const up = (y: number) => plot.top + plot.height - y;
  const upright = pinchedAxis(ofAxis(trace), plot.height, [up(c.at.y), up(d.at.y)], [up(a.y), up(b.y)]);
  if (upright !== null) effects.push({ do: 'scale', axis: axisKey(trace.key, 'left'), range: upright });
  return effects;
}
