import { type Chart, type Scale } from 'chart.js';
import { type LaidRegion } from '../workings/regions/regions';
import { type Side } from './drawn';
import { marked, shareOf, valueAtShare } from './axes/axisScale';
import { type Sight } from '../workers/protocol';

/** The size of the type, for the usual and the presenter's size: asked once for each, since asking makes a browser lay out the page. */
const scales = new Map<string | undefined, number>();

/** How much larger than usual the type is. */
export function fontScale(): number {
  const { presenter } = document.documentElement.dataset;
  let scale = scales.get(presenter);
  if (scale === undefined) {
    scale = parseFloat(getComputedStyle(document.documentElement).fontSize) / 16;
    scales.set(presenter, scale);
  }
  return scale;
}

/** Where the plots lie in their panels: all panels share these, so that one overlay fits the whole stack. They grow with the type. */
export const plotLeft = (): number => 72 * fontScale();
/** Room at the right: for the numbers of a second axis where a trace of the stack has one. */
export const plotRight = (hasRight: boolean): number => (hasRight ? plotLeft() : 16);
export const axisHeight = (): number => 30 * fontScale();

/** Room over each plot, in which the labels of its axes and what there is to say of it stand, so that they hide nothing. */
export const headHeight = (): number => 20 * fontScale();

let ruler: CanvasRenderingContext2D | null = null;

/** How much room the label of an axis takes over its plot, with some beside it. */
export function labelWidth(label: string): number {
  ruler ??= document.createElement('canvas').getContext('2d');
  if (ruler === null) return 0;
  ruler.font = `650 ${13 * fontScale()}px "Inter Variable"`;
  return ruler.measureText(label).width + 12;
}

export type RegionBounds = LaidRegion;

/** Pixel of a value on the shared axis, from the left edge of the plots. */
export const pixelOf = (value: number, axis: Sight, width: number): number => shareOf(value, axis) * width;

/** Value under a pixel. */
export const valueAtPixel = (pixel: number, axis: Sight, width: number): number =>
  valueAtShare(pixel / width, axis);

/** Farther than any plot reaches, in pixels. */
const beyond = 1e4;

/** Where a value lies in a chart; one that can stand on no logarithmic axis lies beyond its lower end. */
export function pixelFor(scale: Scale, value: number): number {
  if (scale.type !== logarithmicType || value > 0) return scale.getPixelForValue(value);
  return scale.isHorizontal() ? scale.left - beyond : scale.bottom + beyond;
}

/** The ends of a scale of a chart. */
export const endsOf = ({ min, max, type }: Scale): Sight => ({
  from: min,
  to: max,
  ...marked(type === logarithmicType),
});

/** What the logarithmic scale of a chart is called. */
export const logarithmicType = 'bareLogarithm';

/** The scale of a chart on which something is read. */
export const scaleOf = ({ scales }: Chart, side: Side): Scale =>
  side === 'right' && 'right' in scales ? scales.right : scales.y;
