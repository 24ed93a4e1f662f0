import { type Label } from '@heuristor/contracts';
import { shareOf } from '../axes/axisScale';
import { heightIn } from '../axes/panelPlot';
import { axisOf } from '../cursor/cursorWords';
import { type ShownLabel } from './labelReader';
import { type DrawnTrace } from '../drawn';
import { type Sight } from '../../workers/protocol';

/** Where a plot lies, in pixels. */
export interface PlotBox {
  left: number;
  top: number;
  width: number;
  height: number;
}

export interface Point {
  x: number;
  y: number;
}

/** Where a label stands: its middle, and what it points at; null for one that points at nothing. */
export interface LabelPlace {
  middle: Point;
  target: Point | null;
}

/**
 * Places a label in the plot of its trace.
 * @returns null where what it speaks of is out of sight
 */
export function labelPlace(
  { label: { at, offset }, anchor }: Pick<ShownLabel, 'label' | 'anchor'>,
  axis: Pick<DrawnTrace, 'low' | 'high' | 'isLogarithmic'>,
  plot: PlotBox,
  sight: Sight,
  zoom = 1,
): LabelPlace | null {
  const { left, top, width, height } = plot;
  const kept = ({ x, y }: Point): Point => ({
    x: Math.min(Math.max(x, left), left + width),
    y: Math.min(Math.max(y, top), top + height),
  });
  const [dx, dy] = [offset.x * zoom, offset.y * zoom];
  if (at.kind === 'free')
    return { middle: kept({ x: left + at.x * width + dx, y: top + at.y * height + dy }), target: null };
  if (anchor === null || !(anchor.x >= sight.from && anchor.x <= sight.to)) return null;
  const x = left + shareOf(anchor.x, sight) * width;
  if (anchor.y === null) return { middle: kept({ x: x + dx, y: top + dy }), target: null };
  const y = heightIn(plot, anchor.y, axis);
  if (!(y >= top && y <= top + height)) return null;
  return { middle: kept({ x: x + dx, y: y + dy }), target: { x, y } };
}

/** The axis on which a label's point is read. */
export const axisFor = ({ at }: Label, trace: DrawnTrace) => {
  const side =
    at.kind === 'point' ? trace.quantities.find(({ reference }) => reference === at.series)?.side : undefined;
  return axisOf(trace, side ?? 'left');
};
