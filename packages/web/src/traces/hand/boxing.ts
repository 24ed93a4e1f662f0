import { axisKey } from '../axes/scaling';
import { valueIn } from '../axes/panelPlot';
import { valueAtPixel } from '../geometry';
import { type HandEffect, type Press, shortestDrag } from './hand';
import { type Place } from './place';
import { type Scene } from './scene';

/** Only what lies in a box is looked at, of the trace in which it was begun; nothing comes of a box that is too small. */
export function boxLookedAt({ at }: Press, to: Place, scene: Scene): HandEffect[] {
  const { sight, width } = scene;
  if (Math.abs(to.x - at.x) < shortestDrag || Math.abs(to.y - at.y) < shortestDrag) return [];
  const found = scene.traceAt(at.y);
  if (found === null) return [];
  const { trace, plot } = found;
  const [from, end] = [Math.min(at.x, to.x), Math.max(at.x, to.x)].map((x) => valueAtPixel(x, sight, width));
  const [low, high] = [Math.max(at.y, to.y), Math.min(at.y, to.y)].map((y) => valueIn(plot, y, trace));
  if (!(high > low)) return [];
  return [
    {
      do: 'look at box',
      sight: { from, to: end },
      axis: axisKey(trace.key, 'left'),
      range: { from: low, to: high },
    },
  ];
}
