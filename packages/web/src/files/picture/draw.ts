import { axisLabel } from '@heuristor/core';
import { BasicPlatform, Chart, type Plugin, type Point } from 'chart.js';
import { colours, onPaper } from '../../ui/colours';
import { markerShape } from '../../runs/markerShape';
import { highlighter, runStyle } from '../../runs/runStyles';
import { type DrawnTrace } from '../../traces/drawn';
import { type DrawnGraph } from '../../traces/ownGraphs/composeGraphs';
import { bandPlugin } from '../../traces/bands';
import { type LineChart, chartOptions, fillChart } from '../../traces/chartSetup';
import { axisHeight, fontScale, plotRight } from '../../traces/geometry';
import { marked, shareOf } from '../../traces/axes/axisScale';
import { axisFor, labelPlace } from '../../traces/labels/labelPlaces';
import { fillOwnGraph, graphOverLayer } from '../../traces/ownGraphs/ownGraphDrawing';
import { emptiestCorner, legendRows } from '../../traces/legend/legendPlace';
import { quantityColour } from '../../traces/lineColour';
import { overLayerOf } from '../../traces/overLayer';
import { paintOver, paintUnder } from '../../traces/traceLayers';
import { type PictureContent } from './content';
import { type Layer, type Paper } from './paper';

const margin = 16;
const gap = 6;
const tab = 18;

interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/**
 * Draws what stands on a bench onto a sheet: a head with the runs, the traces over their axis, graphs of their own, labels.
 * It is light, also where the screen is dark.
 * @param ground the colour of the sheet
 */
export function drawPicture(
  paper: Paper<unknown>,
  content: PictureContent,
  width: number,
  height: number,
  ground: 'paper' | 'sheet' = 'paper',
): void {
  onPaper(() => draw(paper, content, width, height, ground));
}

function draw(
  paper: Paper<unknown>,
  content: PictureContent,
  width: number,
  height: number,
  ground: 'paper' | 'sheet',
): void {
  const { context } = paper;
  const { traces, graphs } = content;
  context.fillStyle = colours[ground];
  context.fillRect(0, 0, width, height);
  const top = drawHead(context, content, width);
  const inner = { left: margin, width: width - 2 * margin };
  const rest = height - top - margin;
  const [above, below] = [sum(traces), Math.max(0, ...graphs.map(({ weight }) => weight))];
  const share = above / (above + below);
  const first = traces.length === 0 ? 0 : graphs.length === 0 ? rest : share * (rest - gap);
  if (traces.length > 0) drawTraces(paper, content, { ...inner, top, height: first });
  if (graphs.length > 0) {
    const start = traces.length === 0 ? top : top + first + gap;
    const each = (inner.width - (graphs.length - 1) * gap) / graphs.length;
    graphs.forEach((graph, i) =>
      drawGraph(paper, content, graph, {
        left: inner.left + i * (each + gap),
        width: each,
        top: start,
        height: top + rest - start,
      }),
    );
  }
}

const sum = (traces: readonly DrawnTrace[]) => traces.reduce((total, { weight }) => total + weight, 0);

/** @returns where what comes below begins */
function drawHead(
  context: CanvasRenderingContext2D,
  { title, runs, remarks }: PictureContent,
  width: number,
) {
  const size = fontScale();
  let y = margin + 10 * size;
  context.textBaseline = 'alphabetic';
  context.textAlign = 'left';
  context.fillStyle = colours.text;
  context.font = `650 ${15 * size}px "Inter Variable"`;
  if (title !== '') {
    context.fillText(title, margin, y);
    y += 22 * size;
  }
  let x = margin;
  context.font = `${13 * size}px "Inter Variable"`;
  const room = width - margin;
  const next = (needed: number) => {
    if (x + needed <= room || x === margin) return;
    x = margin;
    y += 19 * size;
  };
  for (const { text, style } of runs) {
    const wide = context.measureText(text).width;
    next(34 + wide);
    const { color, dash } = runStyle(style);
    context.strokeStyle = color;
    context.lineWidth = 2.5;
    context.setLineDash(dash);
    context.beginPath();
    context.moveTo(x, y - 4 * size);
    context.lineTo(x + 28, y - 4 * size);
    context.stroke();
    context.setLineDash([]);
    drawMarker(context, style, x + 14, y - 4 * size);
    context.fillStyle = colours.text;
    context.fillText(text, x + 34, y);
    x += 34 + wide + 20;
  }
  context.fillStyle = colours.quiet;
  for (const remark of remarks) {
    next(context.measureText(remark).width);
    context.fillText(remark, x, y);
    x += context.measureText(remark).width + 20;
  }
  return y + 10 * size;
}

/** The marker by which a run is known without its colour. */
function drawMarker(context: CanvasRenderingContext2D, style: number, x: number, y: number): void {
  const reach = 4;
  const shape = markerShape(style);
  context.fillStyle = context.strokeStyle = runStyle(style).color;
  context.lineWidth = 1.5;
  context.beginPath();
  switch (shape.kind) {
    case 'circle':
      context.arc(x, y, reach, 0, 2 * Math.PI);
      context.fill();
      break;
    case 'filled':
      for (const [dx, dy] of shape.points) context.lineTo(x + reach * dx, y + reach * dy);
      context.closePath();
      context.fill();
      break;
    case 'strokes':
      for (const [dx, dy] of shape.ends) {
        context.moveTo(x - reach * dx, y - reach * dy);
        context.lineTo(x + reach * dx, y + reach * dy);
      }
      context.stroke();
      break;
  }
}

/**
 * A chart that is drawn once, at a size of its own.
 * @returns where its plot lies on the sheet
 */
function drawnChart(
  { canvas }: Layer,
  box: Box,
  ratio: number,
  fill: (chart: Parameters<typeof fillChart>[0]) => void,
  paint: (chart: Chart) => void,
): Box {
  const content = {
    data: { datasets: [] } as LineChart['data'],
    options: { ...chartOptions(), responsive: false, devicePixelRatio: ratio },
  };
  fill(content);
  // The paths that the chart keeps for another time are none of shapes; where segments have a look of their own it keeps none.
  content.data.datasets.forEach((dataset) => (dataset.segment = {}));
  // The chart scales its canvas itself.
  [canvas.width, canvas.height] = [box.width, box.height];
  const layers: Plugin<'line'> = { id: 'layers', afterDraw: (drawn) => paint(drawn) };
  // It is drawn as it is made, once: shapes that are drawn again would lie twice.
  const chart: LineChart = new Chart<'line', Point[]>(canvas, {
    type: 'line',
    platform: BasicPlatform,
    plugins: [bandPlugin, layers],
    ...content,
  });
  const { left, top, width, height } = chart.chartArea;
  return { left: box.left + left, top: box.top + top, width, height };
}

function drawTraces(paper: Paper<unknown>, content: PictureContent, box: Box): void {
  const { traces, frame, styles, isTime, regions } = content;
  const roomRight = plotRight(traces.some(({ right }) => right !== null));
  const free = box.height - axisHeight() - gap * (traces.length - 1);
  const all = sum(traces);
  let y = box.top;
  const plots = traces.map((trace, i) => {
    const isBottom = i === traces.length - 1;
    const height = (trace.weight / all) * free + (isBottom ? axisHeight() : 0);
    const own = { left: box.left, top: y, width: box.width, height };
    const [under, lines, over] = [0, 1, 2].map(() => paper.layer(own.width, own.height));
    const plot = drawnChart(
      lines,
      own,
      paper.ratio,
      (chart) =>
        fillChart(chart, {
          lines: trace.lines,
          styles,
          joined: isTime,
          look: trace.look,
          isBottom,
          roomRight,
          across: { low: frame.sight.from, high: frame.sight.to, ...marked(frame.sight.isLogarithmic) },
          left: trace,
          right: trace.right,
        }),
      (chart) => {
        paintUnder(under.canvas, chart, {
          regions,
          spans: content.spans,
          target: trace.target ?? null,
          isBottom,
          hasRight: trace.right !== null,
          bottomLabel: isBottom ? axisLabel(frame.horizontal.symbol, frame.horizontal.unit) : null,
        });
        paintOver(over.canvas, chart, {
          ...overLayerOf(trace, styles, isTime),
          label: axisLabel(trace.symbol, trace.unit),
          rightLabel: trace.right === null ? null : axisLabel(trace.right.symbol, trace.right.unit),
          bottomLabel: isBottom ? axisLabel(frame.horizontal.symbol, frame.horizontal.unit) : null,
        });
      },
    );
    for (const layer of [under, lines, over]) paper.lay(layer, own.left, own.top);
    y += height + gap;
    return { trace, plot };
  });
  const layer = paper.layer(box.left + box.width + margin, box.top + box.height + margin);
  if (plots.length > 0) drawLetters(layer.context, content, plots[0].plot);
  for (const { trace, plot } of plots) {
    drawLegend(layer.context, content, trace, plot);
    drawLabels(layer.context, content, trace, plot);
  }
  paper.lay(layer, 0, 0);
}

/** The lettered tabs of the regions, over the first plot. */
function drawLetters(context: CanvasRenderingContext2D, { regions, frame }: PictureContent, plot: Box): void {
  const { from, to } = frame.sight;
  const size = fontScale();
  context.font = `650 ${13 * size}px "Inter Variable"`;
  context.textBaseline = 'middle';
  context.textAlign = 'left';
  for (const { letter, start, end } of regions) {
    if (end < from || start > to) continue;
    const left = plot.left + shareOf(Math.max(start, from), frame.sight) * plot.width;
    const width = context.measureText(letter).width + 14 * size;
    context.fillStyle = highlighter(letter).fill;
    context.fillRect(left, plot.top - tab * size, width, tab * size);
    context.fillStyle = colours.text;
    context.fillText(letter, left + 7 * size, plot.top - (tab * size) / 2);
  }
}

/** What tells the quantities of a trace apart, where it stands on the page. */
function drawLegend(
  context: CanvasRenderingContext2D,
  { frame }: PictureContent,
  trace: DrawnTrace,
  plot: Box,
): void {
  const rows = legendRows(trace);
  if (rows.length === 0) return;
  const size = fontScale();
  const [swatch, air, line] = [22 * size, 8 * size, 18 * size];
  context.font = `500 ${12 * size}px "Inter Variable"`;
  context.textBaseline = 'middle';
  context.textAlign = 'left';
  const width = Math.max(...rows.map(({ text }) => context.measureText(text).width)) + swatch + 3 * air;
  const height = rows.length * line + air;
  const { x, y } = trace.legend ?? emptiestCorner(trace, frame.sight);
  const left = plot.left + x * (plot.width - width);
  const top = plot.top + y * (plot.height - height);
  context.fillStyle = colours.sheet;
  context.fillRect(left, top, width, height);
  context.strokeStyle = colours.rule;
  context.lineWidth = 1;
  context.strokeRect(left, top, width, height);
  rows.forEach(({ text, place }, i) => {
    const middle = top + air / 2 + (i + 0.5) * line;
    context.strokeStyle = quantityColour(place);
    context.lineWidth = 2.5;
    context.beginPath();
    context.moveTo(left + air, middle);
    context.lineTo(left + air + swatch, middle);
    context.stroke();
    context.fillStyle = colours.text;
    context.fillText(text, left + 2 * air + swatch, middle);
  });
}

/** The labels of a trace, each with a line to what it speaks of. */
function drawLabels(
  context: CanvasRenderingContext2D,
  { labels, frame }: PictureContent,
  trace: DrawnTrace,
  plot: Box,
): void {
  const size = fontScale();
  context.font = `500 ${13 * size}px "Inter Variable"`;
  context.textBaseline = 'middle';
  context.textAlign = 'left';
  for (const shown of labels) {
    if (shown.label.panel !== trace.key) continue;
    const place = labelPlace(shown, axisFor(shown.label, trace), plot, frame.sight);
    if (place === null) continue;
    const { middle, target } = place;
    if (shown.as === 'name') {
      context.font = `500 ${11 * size}px "Inter Variable"`;
      context.fillStyle = colours.text;
      context.fillText(shown.text, middle.x - context.measureText(shown.text).width / 2, middle.y);
      context.font = `500 ${13 * size}px "Inter Variable"`;
      continue;
    }
    context.strokeStyle = colours.text;
    context.lineWidth = 1.25;
    if (target !== null) {
      context.beginPath();
      context.moveTo(middle.x, middle.y);
      context.lineTo(target.x, target.y);
      context.stroke();
      context.beginPath();
      context.arc(target.x, target.y, 3.5, 0, 2 * Math.PI);
      context.stroke();
    }
    const rows = shown.text.split('\n');
    const width = Math.max(...rows.map((row) => context.measureText(row).width)) + 16 * size;
    const height = (rows.length * 18 + 6) * size;
    const [left, top] = [middle.x - width / 2, middle.y - height / 2];
    context.fillStyle = colours.sheet;
    context.fillRect(left, top, width, height);
    context.lineWidth = 1;
    context.strokeRect(left, top, width, height);
    context.fillStyle = colours.text;
    rows.forEach((row, i) => context.fillText(row, left + 8 * size, top + (3 + 18 * (i + 0.5)) * size));
  }
}

function drawGraph(paper: Paper<unknown>, { styles }: PictureContent, graph: DrawnGraph, box: Box): void {
  const [under, lines, over] = [0, 1, 2].map(() => paper.layer(box.width, box.height));
  drawnChart(
    lines,
    box,
    paper.ratio,
    (chart) => fillOwnGraph(chart, graph, styles),
    (chart) => {
      const layer = graphOverLayer(graph, styles);
      const { bottomLabel } = layer;
      paintUnder(under.canvas, chart, {
        regions: [],
        target: null,
        isBottom: true,
        hasRight: false,
        bottomLabel,
      });
      paintOver(over.canvas, chart, layer);
    },
  );
  for (const layer of [under, lines, over]) paper.lay(layer, box.left, box.top);
}
