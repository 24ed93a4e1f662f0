import { type Chart } from 'chart.js';
import { colours } from '../ui/colours';
import { headsAlong } from './arrowHeads';
import { fontScale, pixelFor, scaleOf } from './geometry';
import { type Marks, type OverLayer } from './layers';
import { shortText } from '../ui/numberText';

/** Pixels along a line from one head of an arrow to the next, and its shape. */
const arrowsApart = 110;
const arrowShape = [
  [7, 0],
  [-4, 5],
  [-1.5, 0],
  [-4, -5],
] as const;
/** Radius of a reading that was set aside, in pixels. */
const asideRadius = 3;
/** Half the size of the cross that marks a wrong echo, in pixels. */
const strayReach = 4;
/** Half the width of the ends of an error bar, in pixels. */
export const barReach = 4;

export function paintBars(
  context: CanvasRenderingContext2D,
  chart: Chart,
  { x, y, half, across: beside, color, side }: OverLayer['bars'][number],
): void {
  const [across, up] = [chart.scales.x, scaleOf(chart, side)];
  context.strokeStyle = color;
  context.lineWidth = 1;
  context.beginPath();
  for (let i = 0; i < x.length; i++) {
    const at = pixelFor(across, x[i]);
    const [top, foot] = [pixelFor(up, y[i] + half[i]), pixelFor(up, y[i] - half[i])];
    context.moveTo(at, top);
    context.lineTo(at, foot);
    for (const end of half[i] > 0 ? [top, foot] : []) {
      context.moveTo(at - barReach, end);
      context.lineTo(at + barReach, end);
    }
    const reach = beside?.[i] ?? 0;
    if (reach === 0) continue;
    const level = pixelFor(up, y[i]);
    const [left, right] = [pixelFor(across, x[i] - reach), pixelFor(across, x[i] + reach)];
    context.moveTo(left, level);
    context.lineTo(right, level);
    for (const end of [left, right]) {
      context.moveTo(end, level - barReach);
      context.lineTo(end, level + barReach);
    }
  }
  context.stroke();
}

/** No measurement, and drawn as none: hollow, at the edge of the plot and not in its scale. */
export function paintPinned(
  context: CanvasRenderingContext2D,
  { chartArea, scales }: Chart,
  { x, y, color }: Marks,
) {
  context.strokeStyle = color;
  context.lineWidth = 1.5;
  for (let i = 0; i < x.length; i++) {
    const at = pixelFor(scales.x, x[i]);
    const [tip, foot] =
      y[i] > 0 ? [chartArea.top + 2, chartArea.top + 10] : [chartArea.bottom - 2, chartArea.bottom - 10];
    context.beginPath();
    context.moveTo(at, tip);
    context.lineTo(at + 5, foot);
    context.lineTo(at - 5, foot);
    context.closePath();
    context.stroke();
  }
}

/** Wrong echoes: where they were read, or at the edge with their value where that lies outside of the plot. */
export function paintStrays(
  context: CanvasRenderingContext2D,
  chart: Chart,
  { x, y, color, side }: Marks,
): void {
  const { chartArea } = chart;
  const up = scaleOf(chart, side);
  context.strokeStyle = color;
  context.fillStyle = colours.quiet;
  context.lineWidth = 1.5;
  context.font = `${10.5 * fontScale()}px "IBM Plex Mono"`;
  context.textBaseline = 'middle';
  // A picture of shapes takes a text for the end of a path: all crosses are drawn before anything is written.
  const written: { text: string; left: number; height: number }[] = [];
  let room = -Infinity;
  context.beginPath();
  for (let i = 0; i < x.length; i++) {
    const at = pixelFor(chart.scales.x, x[i]);
    const own = pixelFor(up, y[i]);
    const [top, foot] = [chartArea.top + strayReach + 2, chartArea.bottom - strayReach - 2];
    const height = Math.min(Math.max(own, top), foot);
    for (const slope of [1, -1]) {
      context.moveTo(at - strayReach, height - slope * strayReach);
      context.lineTo(at + strayReach, height + slope * strayReach);
    }
    if (own === height) continue;
    const text = shortText(y[i]);
    const { width } = context.measureText(text);
    const left =
      at + strayReach + 4 + width > chartArea.right ? at - strayReach - 4 - width : at + strayReach + 4;
    // Values that would cover each other are not all written.
    if (left < room) continue;
    written.push({ text, left, height });
    room = left + width + 6;
  }
  context.stroke();
  for (const { text, left, height } of written) context.fillText(text, left, height + 0.5);
}

/** Hollow, and in the scale only as far as the others are. */
export function paintAside(
  context: CanvasRenderingContext2D,
  chart: Chart,
  { x, y, color, side }: Marks,
): void {
  const [across, up] = [chart.scales.x, scaleOf(chart, side)];
  context.strokeStyle = color;
  context.fillStyle = colours.sheet;
  context.lineWidth = 1.25;
  context.beginPath();
  for (let i = 0; i < x.length; i++) {
    const [at, height] = [pixelFor(across, x[i]), pixelFor(up, y[i])];
    context.moveTo(at + asideRadius, height);
    context.arc(at, height, asideRadius, 0, 2 * Math.PI);
  }
  context.fill();
  context.stroke();
}

/** Small heads along a line, by which one sees in which order it was read. */
export function paintArrows(
  context: CanvasRenderingContext2D,
  chart: Chart,
  { x, y, color, side }: Marks,
): void {
  const [across, up] = [chart.scales.x, scaleOf(chart, side)];
  const points = Array.from(x, (value, i) => ({
    x: across.getPixelForValue(value),
    // A point that is not drawn has no height.
    y: up.getPixelForValue(y[i]),
  }));
  context.fillStyle = color;
  for (const { at, angle } of headsAlong(points, arrowsApart)) {
    context.beginPath();
    for (const [along, aside] of arrowShape) {
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      context.lineTo(at.x + along * cos - aside * sin, at.y + along * sin + aside * cos);
    }
    context.closePath();
    context.fill();
  }
}
