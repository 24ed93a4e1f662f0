import {
  Chart,
  type ChartDataset,
  type ChartOptions,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  type Point,
  PointElement,
} from 'chart.js';
import { colours } from '../theme/colours';
import { runStyle } from '../theme/runStyles';
import { type DrawnLine } from '../workers/compose';
import { type Line } from '../workers/protocol';
import { type Band } from './bands';
import { axisHeight, fontScale, plotLeft } from './geometry';

Chart.register(LineController, LineElement, LinearScale, PointElement, Filler);

export interface StyleOfRun {
  style: number;
  front: boolean;
}

export type LineChart = Chart<'line', Point[]>;

const mono = (size: number) => ({ family: 'IBM Plex Mono', size });
const withTrueMinus = (value: number | string) =>
  String(typeof value === 'number' ? Number(value.toPrecision(10)) : value).replace('-', '−');

const few = 80;
/** Points of one quantity against another that are marked one by one; of more, small dots are enough. */
const many = 400;
const markers = 12;

/** How the chart of a trace looks, whatever it shows. */
export function chartOptions(): ChartOptions<'line'> {
  const left = plotLeft();
  const tick = { color: colours.quiet, font: mono(12 * fontScale()), callback: withTrueMinus };
  return {
    animation: false,
    parsing: false,
    normalized: true,
    responsive: true,
    maintainAspectRatio: false,
    events: [],
    // The panels lie close: what would be kept free for half a label is wanted for the lines.
    layout: { autoPadding: false, padding: { right: 16, top: 2, left: 0, bottom: 2 } },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
    scales: {
      x: {
        type: 'linear',
        display: true,
        ticks: { ...tick, maxRotation: 0, autoSkipPadding: 24, includeBounds: false },
        grid: { color: colours.grid, tickLength: 4 },
        border: { color: colours.rule },
      },
      y: {
        type: 'linear',
        ticks: { ...tick, maxTicksLimit: 7, includeBounds: false, padding: 4 },
        grid: {
          color: (context) => (context.tick.value === 0 ? colours.gridZero : colours.grid),
          tickLength: 4,
        },
        border: { color: colours.rule },
        afterFit: (scale) => {
          scale.width = left;
        },
      },
      right: {
        type: 'linear',
        position: 'right',
        display: false,
        ticks: { ...tick, maxTicksLimit: 7, includeBounds: false, padding: 4 },
        // Its own lines would lie between those of the other axis.
        grid: { drawOnChartArea: false, tickLength: 4, color: colours.rule },
        border: { color: colours.rule },
        afterFit: (scale) => {
          scale.width = scale.options.display === true ? left : 0;
        },
      },
    },
  };
}

interface Ends {
  low: number;
  high: number;
}

export interface ChartContent {
  lines: readonly DrawnLine[];
  styles: ReadonlyMap<string, StyleOfRun>;
  joined: boolean;
  isBottom: boolean;
  roomRight: number;
  across: Ends;
  left: Ends;
  right: Ends | null;
}

/** Puts into a chart what it shows; it is drawn when it is updated. */
export function fillChart(
  chart: Pick<LineChart, 'data'> & { options: ChartOptions<'line'> },
  { lines, styles, joined, isBottom, roomRight, across, left, right }: ChartContent,
): void {
  const { x, y, right: second } = chart.options.scales ?? {};
  if (x === undefined || y === undefined || second === undefined) return;
  Object.assign(x, { min: across.low, max: across.high });
  Object.assign(x.ticks ?? {}, { display: isBottom });
  x.afterFit = (scale) => {
    scale.height = isBottom ? axisHeight() : 2;
  };
  Object.assign(y, { min: left.low, max: left.high });
  Object.assign(
    second,
    right === null ? { display: false } : { display: true, min: right.low, max: right.high },
  );
  Object.assign(chart.options.layout ?? {}, {
    padding: { right: right === null ? roomRight : 0, top: 2, left: 0, bottom: 2 },
  });
  Object.assign(chart.options.plugins ?? {}, { bands: { bands: bandsOf(lines, styles) } });
  chart.data.datasets = lines.flatMap((line) => datasetsOf(line, styles, joined));
}

/** What the chart draws of one run. */
function datasetsOf(
  line: DrawnLine,
  styles: ReadonlyMap<string, StyleOfRun>,
  joined: boolean,
): ChartDataset<'line', Point[]>[] {
  const { style, front } = styles.get(line.runId) ?? { style: 0, front: false };
  const { color, dash, marker } = runStyle(style);
  const data = points(line);
  const isDots = line.isDots === true;
  const allMarked = !line.isBand && (isDots || data.length <= few || (!joined && data.length <= many));
  // What stands beside the first quantity of a trace has thinner lines and hollow marks.
  const isSecond = line.place > 0;
  const look = {
    yAxisID: line.side === 'right' ? 'right' : 'y',
    borderColor: color,
    backgroundColor: isSecond ? colours.sheet : color,
    // Over another quantity the points are what counts; the line only tells their order.
    borderWidth: joined ? (front ? 2 : 1.5) * (isSecond ? 0.6 : 1) : 0.6,
    pointStyle: marker,
    order: front ? 1 : 2,
  };
  // Where lines are long, a marker now and then is enough to tell runs apart without colour. They are points of their own,
  // since options that differ from point to point cost the chart more than all its drawing.
  const every = Math.max(1, Math.round(data.length / markers));
  const marked = allMarked ? [] : data.filter((_, i) => i % every === every >> 1);
  return [
    ...(line.isBand
      ? []
      : [
          {
            ...look,
            data,
            borderDash: joined ? dash : [],
            showLine: !isDots,
            pointRadius: allMarked ? 3 : joined ? 0 : 1.2,
          },
        ]),
    ...(marked.length > 0 ? [{ ...look, data: marked, showLine: false, pointRadius: 3 }] : []),
  ];
}

/** The bands of a trace, the run in front last. */
function bandsOf(lines: readonly DrawnLine[], styles: ReadonlyMap<string, StyleOfRun>): Band[] {
  const isFront = ({ runId }: DrawnLine) => Number(styles.get(runId)?.front === true);
  return lines
    .filter(({ isBand }) => isBand)
    .sort((a, b) => isFront(a) - isFront(b))
    .map(({ runId, side, x, y }) => ({ side, x, y, color: runStyle(styles.get(runId)?.style ?? 0).color }));
}

export function points({ x, y }: Line): Point[] {
  const out = new Array<Point>(x.length);
  for (let i = 0; i < x.length; i++) out[i] = { x: x[i], y: y[i] };
  return out;
}
