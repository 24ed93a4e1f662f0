import { panned as pannedAxis } from '../axes/axisMoves';
import { valueAtPixel } from '../geometry';
import { type Doing, type HandEffect, type Press, shortestDrag } from './hand';
import { type Place } from './place';
import { type Scene } from './scene';

type Moved = [Doing, HandEffect[]];

/** By how much a pointer has come along the axis since it went down, in the unit of the axis. */
const along = ({ at, sight }: Press, to: Place, { width }: Scene): number =>
  ((to.x - at.x) / width) * (sight.to - sight.from);

/** A region is marked from where the pointer went down to where it is. */
export function marked(press: Press, to: Place, isNew: boolean, { sight, width }: Scene): Moved {
  if (isNew && Math.abs(to.x - press.at.x) < shortestDrag) return [{ is: 'pressing', press }, []];
  const ends = [valueAtPixel(press.at.x, sight, width), valueAtPixel(to.x, sight, width)];
  const [start, end] = [Math.min(...ends), Math.max(...ends)];
  return [
    { is: 'marking', press },
    [{ do: 'hold' }, { do: 'mark', start, end, series: press.series, isNew }],
  ];
}

/** What is seen goes along with the pointer. */
export function panned(press: Press, to: Place, scene: Scene): Moved {
  const sight = pannedAxis(press.sight, (press.at.x - to.x) / scene.width);
  return [{ is: 'panning', press }, [{ do: 'hold' }, { do: 'look', sight }]];
}

/** The run in front goes along with the pointer. */
export function shifted(press: Press, to: Place, hasMoved: boolean, scene: Scene): Moved {
  const isStill = !hasMoved && Math.abs(to.x - press.at.x) < shortestDrag;
  if (isStill || press.shift === null) return [{ is: 'shifting', press, hasMoved }, []];
  return [
    { is: 'shifting', press, hasMoved: true },
    [{ do: 'hold' }, { do: 'shift run', by: press.shift + along(press, to, scene) }],
  ];
}
