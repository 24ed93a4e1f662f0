import { type Chart } from 'chart.js';
import { colours, faded } from '../ui/colours';
import { highlighter } from '../runs/runStyles';
import { type Side } from './drawn';
import { acrossTicks, uprightTicks } from './axes/axisTicks';
import { endsOf, fontScale, headHeight, pixelFor, scaleOf } from './geometry';
import { type DrawnCurve, type LineLabel, type UnderLayer, type OverLayer } from './layers';
import { paintAxes } from './axes/paintAxes';
import { barReach, paintArrows, paintAside, paintBars, paintPinned, paintStrays } from './paintMarks';

/**
 * Makes a canvas ready to be painted on; null where the same stands on it already. What a hand moves lies on canvases of its
 * own, under and over the chart: so a dragged region costs two rectangles and a curve, not all lines once more. Both are drawn
 * in the chart's own scales.
 */
function begin(
  canvas: HTMLCanvasElement,
  chart: Chart,
  content: unknown,
  curves: OverLayer['curves'] = none,
): CanvasRenderingContext2D | null {
  const { width, height, currentDevicePixelRatio: ratio, chartArea } = chart;
  const { left, right, top, bottom } = chartArea;
  const look = [colours.sheet, colours.text, colours.quiet];
  const key = JSON.stringify([width, height, ratio, left, right, top, bottom, look, content]);
  const before = painted.get(canvas);
  if (before?.key === key && before.curves === curves) return null;
  painted.set(canvas, { key, curves });
  const [columns, rows] = [Math.round(width * ratio), Math.round(height * ratio)];
  if (canvas.width !== columns) canvas.width = columns;
  if (canvas.height !== rows) canvas.height = rows;
  canvas.style.width = `${width}px`;
  canvas.style.height = `${height}px`;
  const context = canvas.getContext('2d');
  if (context === null) return null;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, width, height);
  return context;
}

/** Width of the line that is to be followed, in pixels. */
const ribbonWidth = 12;
/** What stands on a canvas, so that nothing is painted twice: while a run is recorded, charts are drawn 25 times a second. */
const painted = new WeakMap<HTMLCanvasElement, { key: string; curves: OverLayer['curves'] }>();
const none: OverLayer['curves'] = [];

function clipToPlot(context: CanvasRenderingContext2D, { chartArea }: Chart): void {
  context.beginPath();
  context.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
  context.clip();
}

/** What the label of the horizontal axis takes of its end, where it is too long for the corner; 0 where it stands there. */
function roomForLabel(canvas: HTMLCanvasElement, chart: Chart, label: string | null): number {
  const context = label === null ? null : canvas.getContext('2d');
  if (context === null || label === null) return -chart.width;
  context.font = labelFont(13 * fontScale());
  const { width } = context.measureText(label);
  return isLongUnder(chart, width) ? width + 8 : -chart.width;
}

/** The sheet with its axes, and the regions under the lines. */
export function paintUnder(
  canvas: HTMLCanvasElement,
  chart: Chart,
  { regions, spans = [], target, isBottom, hasRight, bottomLabel }: UnderLayer,
): void {
  const { chartArea, scales } = chart;
  const size = 12 * fontScale();
  const across = acrossTicks(endsOf(scales.x), chartArea.width, size);
  const end = chartArea.right - roomForLabel(canvas, chart, bottomLabel);
  const axes = {
    across: across.map((tick) => ({
      ...tick,
      text: scales.x.getPixelForValue(tick.value) + (tick.text.length * size) / 3 < end ? tick.text : '',
    })),
    left: uprightTicks(endsOf(scales.y), chartArea.height, size),
    right: hasRight ? uprightTicks(endsOf(scales.right), chartArea.height, size) : [],
  };
  const placed = regions.map(({ letter, start, end }) => ({
    letter,
    left: pixelFor(scales.x, start),
    right: pixelFor(scales.x, end),
  }));
  const held = spans.map(({ from, to }) => [pixelFor(scales.x, from), pixelFor(scales.x, to)]);
  const points =
    target === null
      ? []
      : Array.from(target.x, (x, i) => [
          scales.x.getPixelForValue(x),
          scales.y.getPixelForValue(target.y[i]),
        ]);
  const ends = [scales.x, scales.y, ...(hasRight ? [scales.right] : [])].map(({ min, max, type }) => [
    min,
    max,
    type,
  ]);
  const context = begin(canvas, chart, [placed, held, points, ends, size, isBottom, bottomLabel]);
  if (context === null) return;
  context.fillStyle = colours.sheet;
  context.fillRect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
  paintAxes(context, chart, axes, isBottom, size);
  context.save();
  clipToPlot(context, chart);
  for (const [left, right] of held) {
    context.fillStyle = faded(colours.act, 0.1);
    context.fillRect(left, chartArea.top, right - left, chartArea.height);
    context.strokeStyle = faded(colours.act, 0.6);
    context.lineWidth = 1;
    context.setLineDash([4, 3]);
    context.beginPath();
    for (const x of [left, right]) {
      context.moveTo(x, chartArea.top);
      context.lineTo(x, chartArea.bottom);
    }
    context.stroke();
    context.setLineDash([]);
  }
  for (const { letter, left, right } of placed) {
    const { fill, edge } = highlighter(letter);
    context.globalAlpha = 0.45;
    context.fillStyle = fill;
    context.fillRect(left, chartArea.top, right - left, chartArea.height);
    context.globalAlpha = 1;
    context.strokeStyle = edge;
    context.lineWidth = 1.5;
    context.beginPath();
    for (const x of [left, right]) {
      context.moveTo(x, chartArea.top);
      context.lineTo(x, chartArea.bottom);
    }
    context.stroke();
  }
  // A ribbon that the line of a try lies on.
  context.lineJoin = 'round';
  for (const [color, width] of [
    [colours.regionLilac, ribbonWidth],
    [colours.regionLilacEdge, 1],
  ] as const) {
    context.strokeStyle = color;
    context.lineWidth = width;
    context.beginPath();
    for (const [x, y] of points) context.lineTo(x, y);
    context.stroke();
  }
  context.restore();
}

/** Fitted curves over the lines, marks, and the labels of the axes in their corners. */
export function paintOver(
  canvas: HTMLCanvasElement,
  chart: Chart,
  {
    curves,
    pinned,
    strays,
    aside,
    bars,
    arrows,
    places = [],
    lineLabels,
    label,
    rightLabel,
    bottomLabel,
  }: OverLayer,
): void {
  const { chartArea } = chart;
  const size = 13 * fontScale();
  const across = chart.scales.x;
  const isBare = [curves, pinned, strays, aside, bars, arrows, places, lineLabels].every(
    ({ length }) => length === 0,
  );
  const ends = (['left', 'right'] as const).flatMap((side) => {
    const { min, max, type } = scaleOf(chart, side);
    return [min, max, type];
  });
  const place = isBare ? [] : [across.min, across.max, across.type, ...ends];
  const marks = [
    ...[...pinned, ...strays, ...aside, ...arrows].map(({ x, color }) => [
      color,
      x.length,
      x[0],
      x[x.length - 1],
    ]),
    ...bars.map(({ y, half, across = [], color }) => [color, ...y, ...half, ...across]),
    places,
    lineLabels,
  ];
  const context = begin(
    canvas,
    chart,
    [label, rightLabel, bottomLabel, size, marks, ...place],
    curves.length === 0 ? none : curves,
  );
  if (context === null) return;
  context.save();
  clipToPlot(context, chart);
  context.lineJoin = 'round';
  for (const curve of curves) paintCurve(context, chart, curve);
  for (const one of bars) paintBars(context, chart, one);
  for (const one of pinned) paintPinned(context, chart, one);
  for (const one of strays) paintStrays(context, chart, one);
  for (const one of aside) paintAside(context, chart, one);
  for (const one of arrows) paintArrows(context, chart, one);
  for (const one of places) paintPlace(context, chart, one, size);
  for (const one of lineLabels) paintLineLabel(context, chart, one, size);
  context.restore();
  context.font = labelFont(size);
  context.textBaseline = 'middle';
  context.fillStyle = colours.text;
  const height = chartArea.top - headHeight() / 2;
  // Each label stands over its axis; where there is only one axis, away from the beginning of the lines.
  const over = (text: string, side: Side) => {
    const { width } = context.measureText(text);
    context.fillText(text, side === 'left' ? chartArea.left : Math.max(chartArea.right - width, 0), height);
  };
  over(label, rightLabel === null ? 'right' : 'left');
  if (rightLabel !== null) over(rightLabel, 'right');
  if (bottomLabel !== null) {
    const { width } = context.measureText(bottomLabel);
    // In the corner under the other axis; one that is too long for it stands at the end of its own, where no number is then.
    const left = isLongUnder(chart, width) ? chartArea.right - width : chartArea.left - cornerGap - width;
    context.fillText(bottomLabel, left, chartArea.bottom + 10 + size / 2);
  }
}

const labelFont = (size: number) => `650 ${size}px "Inter Variable"`;
/** Pixels between the label of the horizontal axis and its beginning. */
const cornerGap = 14;
const isLongUnder = ({ chartArea }: Chart, width: number) => width >= chartArea.left - cornerGap;

function paintCurve(
  context: CanvasRenderingContext2D,
  chart: Chart,
  { x, y, front, side, look }: DrawnCurve,
): void {
  const [across, up] = [chart.scales.x, scaleOf(chart, side)];
  const strength = (front ? 1 : 0.5) * (look === undefined ? 1 : 0.45);
  context.strokeStyle = strength === 1 ? colours.text : faded(colours.text, strength);
  context.lineWidth = front && look === undefined ? 1.75 : 1;
  if (look === 'edge') context.setLineDash([3, 3]);
  context.beginPath();
  for (let i = 0; i < x.length; i++) context.lineTo(pixelFor(across, x[i]), pixelFor(up, y[i]));
  context.stroke();
  context.setLineDash([]);
}

/** A place on the horizontal axis: a line with what it is, and a bar for how far it reaches. */
function paintPlace(
  context: CanvasRenderingContext2D,
  { chartArea, scales }: Chart,
  { at, half, text, color, front }: NonNullable<OverLayer['places']>[number],
  size: number,
): void {
  const middle = scales.x.getPixelForValue(at);
  const [from, to] = [scales.x.getPixelForValue(at - half), scales.x.getPixelForValue(at + half)];
  context.strokeStyle = front ? colours.text : color;
  context.lineWidth = front ? 1.5 : 1;
  context.setLineDash([5, 4]);
  context.beginPath();
  context.moveTo(middle, chartArea.top);
  context.lineTo(middle, chartArea.bottom);
  context.stroke();
  context.setLineDash([]);
  const height = chartArea.top + 1.2 * size;
  if (half > 0) {
    context.beginPath();
    context.moveTo(from, height);
    context.lineTo(to, height);
    for (const end of [from, to]) {
      context.moveTo(end, height - barReach);
      context.lineTo(end, height + barReach);
    }
    context.stroke();
  }
  if (!front) return;
  context.font = `600 ${0.92 * size}px "Inter Variable"`;
  context.textBaseline = 'middle';
  const { width } = context.measureText(text);
  const isLeft = middle + width + 12 > chartArea.right;
  const left = isLeft ? middle - width - 8 : middle + 8;
  const line = half > 0 ? height + size : height;
  context.fillStyle = faded(colours.sheet, 0.88);
  context.fillRect(left - 3, line - size / 2 - 2, width + 6, size + 4);
  context.fillStyle = colours.text;
  context.fillText(text, left, line + 0.5);
}

function paintLineLabel(
  context: CanvasRenderingContext2D,
  chart: Chart,
  { text, side, x, y }: LineLabel,
  size: number,
): void {
  const { chartArea } = chart;
  context.font = `600 ${0.92 * size}px "Inter Variable"`;
  context.textBaseline = 'middle';
  const { width } = context.measureText(text);
  const at = chart.scales.x.getPixelForValue(x);
  const height = Math.min(
    Math.max(scaleOf(chart, side).getPixelForValue(y), chartArea.top + size),
    chartArea.bottom - size,
  );
  context.fillStyle = faded(colours.sheet, 0.88);
  context.fillRect(at - width / 2 - 4, height - size / 2 - 2, width + 8, size + 4);
  context.fillStyle = colours.text;
  context.fillText(text, at - width / 2, height + 0.5);
}
