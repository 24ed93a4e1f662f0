import { type Sight } from '../../workers/protocol';
import { zoomed } from '../axes/axisMoves';
import { marked, ofAxis, usable } from '../axes/axisScale';
import { valueIn } from '../axes/panelPlot';
import { axisKey } from '../axes/scaling';
import { valueAtPixel } from '../geometry';
import { type HandEffect, type HandEvent } from './hand';
import { type Scene } from './scene';

/** Of one turn of the wheel. */
const zoomStep = 1.18;

/** A wheel zooms along, or with Shift upright, about the place of the pointer. */
export function turned(
  { at, turned: by, isShift }: Extract<HandEvent, { kind: 'wheel' }>,
  scene: Scene,
): HandEffect[] {
  const factor = by > 0 ? zoomStep : 1 / zoomStep;
  const rest: HandEffect = { do: 'settle soon' };
  if (!isShift) {
    const { wantedSight, width } = scene;
    const sight = zoomed(wantedSight, valueAtPixel(at.x, wantedSight, width), factor);
    return [{ do: 'hold' }, { do: 'look', sight }, rest];
  }
  const found = scene.traceAt(at.y);
  if (found === null) return [{ do: 'hold' }, rest];
  const { trace, plot } = found;
  const axis = axisKey(trace.key, 'left');
  const { isLogarithmic } = trace;
  const range: Sight = {
    ...(usable(scene.scales[axis], isLogarithmic) ?? ofAxis(trace)),
    ...marked(isLogarithmic),
  };
  const about = valueIn(plot, at.y, { low: range.from, high: range.to, ...marked(isLogarithmic) });
  return [{ do: 'hold' }, { do: 'scale', axis, range: zoomed(range, about, factor) }, rest];
}
