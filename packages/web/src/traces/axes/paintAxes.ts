import { type Chart } from 'chart.js';
import { colours } from '../../ui/colours';
import { type Tick } from './axisTicks';

const tickLength = 4;
const tickPadding = 4;

/** The grid, and the numbers of the axes. */
export function paintAxes(
  context: CanvasRenderingContext2D,
  { chartArea, scales }: Chart,
  { across, left, right }: Record<'across' | 'left' | 'right', readonly Tick[]>,
  isBottom: boolean,
  size: number,
): void {
  const { left: from, right: to, top, bottom } = chartArea;
  // Lines a pixel wide lie between pixels, or they are two wide and pale.
  const sharp = (pixel: number) => Math.round(pixel) + 0.5;
  const line = (x0: number, y0: number, x1: number, y1: number, color: string) => {
    context.strokeStyle = color;
    context.beginPath();
    context.moveTo(x0, y0);
    context.lineTo(x1, y1);
    context.stroke();
  };
  context.lineWidth = 1;
  context.font = `${size}px "IBM Plex Mono"`;
  context.textBaseline = 'middle';
  for (const { value } of across) {
    const x = sharp(scales.x.getPixelForValue(value));
    line(x, top, x, bottom + (isBottom ? tickLength : 0), colours.grid);
  }
  for (const { value } of left) {
    const y = sharp(scales.y.getPixelForValue(value));
    line(from - tickLength, y, to, y, value === 0 ? colours.gridZero : colours.grid);
  }
  for (const { value } of right) {
    const y = sharp(scales.right.getPixelForValue(value));
    line(to, y, to + tickLength, y, colours.rule);
  }
  line(sharp(from), top, sharp(from), bottom, colours.rule);
  line(from, sharp(bottom), to, sharp(bottom), colours.rule);
  if (right.length > 0) line(sharp(to), top, sharp(to), bottom, colours.rule);
  context.fillStyle = colours.quiet;
  if (isBottom) {
    context.textAlign = 'center';
    for (const { value, text } of across)
      context.fillText(text, scales.x.getPixelForValue(value), bottom + tickLength + tickPadding + size / 2);
  }
  context.textAlign = 'right';
  // A number at the upper end stands as high as there is room.
  const highest = size / 2 + 1;
  for (const { value, text } of left)
    context.fillText(
      text,
      from - tickLength - tickPadding,
      Math.max(scales.y.getPixelForValue(value), highest),
    );
  context.textAlign = 'left';
  for (const { value, text } of right)
    context.fillText(
      text,
      to + tickLength + tickPadding,
      Math.max(scales.right.getPixelForValue(value), highest),
    );
}
