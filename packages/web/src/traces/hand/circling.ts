import { valueBeyond } from '../axes/panelPlot';
import { valueAtPixel } from '../geometry';
import { type HandEffect } from './hand';
import { type Place } from './place';
import { type Scene } from './scene';

/** A line around readings is closed: those of the run in front that lie in it are set aside. */
export function circleClosed(path: readonly Place[], scene: Scene): HandEffect[] {
  const { sight, width, horizontal, horizontalUnit } = scene;
  const left: HandEffect = { do: 'leave mode' };
  const found = path.length < 3 ? null : scene.traceAt(path[0].y);
  if (scene.shift === null || found === null || found.trace.reference === null) return [left];
  const { trace, plot } = found;
  const outline = path.map(({ x, y }) => ({
    x: valueAtPixel(x, sight, width),
    y: valueBeyond(plot, y, trace),
  }));
  return [
    left,
    {
      do: 'set aside',
      outline: {
        of: found.trace.reference,
        along: horizontal,
        units: { x: horizontalUnit, y: trace.unit },
        outline,
      },
    },
  ];
}
