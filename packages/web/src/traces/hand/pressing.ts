import { valueAtPixel } from '../geometry';
import { type Doing, type HandEffect, type Press, shortestDrag } from './hand';
import { type Place } from './place';
import { type Scene, questionAt } from './scene';

/** A pointer goes down: what a drag from here will do. */
export function pressed(
  at: Place,
  { isSecond, isBox }: { isSecond: boolean; isBox: boolean },
  scene: Scene,
): Doing {
  if (scene.mode === 'circle') return { is: 'circling', path: [at] };
  const press: Press = {
    at,
    series: scene.traceAt(at.y)?.trace.reference ?? null,
    sight: scene.sight,
    shift: scene.shift,
  };
  if (isBox) return { is: 'boxing', press, to: null };
  if (isSecond) return { is: 'panning', press };
  if (scene.mode === 'shift') return { is: 'shifting', press, hasMoved: false };
  return { is: 'pressing', press };
}

/** Nothing was dragged: the cursor, or its second line, is put where the pointer was pressed. */
export function putCursor(press: Press, at: Place, isSecond: boolean, scene: Scene): HandEffect[] {
  if (Math.abs(at.x - press.at.x) >= shortestDrag) return [];
  const free: HandEffect = { do: 'select no region' };
  if (scene.horizontal === 't')
    return [free, { do: 'put cursor', at: valueAtPixel(at.x, scene.sight, scene.width), isSecond }];
  const question = questionAt(at, scene);
  return question === null ? [free] : [free, { do: 'put cursor near', question, isSecond }];
}
