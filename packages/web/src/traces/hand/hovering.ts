import { valueAtPixel } from '../geometry';
import { type HandEffect } from './hand';
import { type Place } from './place';
import { type Scene, questionAt } from './scene';

export const hoverNothing: HandEffect = { do: 'hover', at: null };

/** What is read under a pointer that presses nothing. */
export function hover(at: Place, scene: Scene): HandEffect {
  const { horizontal, sight, width } = scene;
  if (horizontal === 't')
    return at.x < 0 || at.x > width ? hoverNothing : { do: 'hover', at: valueAtPixel(at.x, sight, width) };
  const question = questionAt(at, scene);
  return question === null ? hoverNothing : { do: 'hover near', question };
}
