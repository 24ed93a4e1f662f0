import { type ReadingsLook } from '@heuristor/contracts';
import {
  Chart,
  type ChartDataset,
  type ChartOptions,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  LogarithmicScale,
  type Point,
  PointElement,
} from 'chart.js';
import { colours } from '../ui/colours';
import { runStyle } from '../runs/runStyles';
import { type DrawnLine } from './drawn';
import { colourIn } from './lineColour';
import { type Line } from '../workers/protocol';
import { type Band } from './bands';
import { axisHeight, plotLeft, headHeight, logarithmicType } from './geometry';

/** A straight scale that lays out nothing: its numbers are painted under the chart. */
class BareScale extends LinearScale {
  static override id = 'bare';

  override buildTicks() {
    return [];
  }
}

/** The same for a logarithmic axis. */
class BareLogarithm extends LogarithmicScale {
  static override id = logarithmicType;

  /** What is not above zero has no place on it, and is not drawn. */
  override getPixelForValue(value: number) {
    return value > 0 ? super.getPixelForValue(value) : NaN;
  }

  override buildTicks() {
    return [];
  }
}

Chart.register(LineController, LineElement, LinearScale, BareScale, BareLogarithm, PointElement, Filler);

export interface StyleOfRun {
  style: number;
  front: boolean;
}

export type LineChart = Chart<'line', Point[]>;

const few = 80;
/** Points of one quantity against another that are marked one by one; of more, small dots are enough. */
const many = 400;
const markers = 12;
/**
 * One dash without an end. Of a line without dashes the chart draws what falls into one column of pixels as an upright stroke, a
 * spur where a line is steep.
 */
const unbroken = [1e6, 0];

const hidden = { display: false } as const;
const bare = {
  // A scale of ours, which a chart's types do not know.
  type: BareScale.id as 'linear',
  display: false,
  ticks: hidden,
  grid: hidden,
  border: hidden,
} as const;

/**
 * How the chart of a trace looks, whatever it shows. Its axes are painted under it: laying out ticks takes a chart three times
 * as long as drawing its lines.
 */
export function chartOptions(): ChartOptions<'line'> {
  return {
    animation: false,
    parsing: false,
    normalized: true,
    responsive: true,
    maintainAspectRatio: false,
    events: [],
    layout: { autoPadding: false, padding: 0 },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
    scales: {
      // Each an object of its own: their ends are written into them.
      x: { ...bare },
      y: { ...bare },
      right: { ...bare, position: 'right' },
    },
  };
}

/** A small drawing without numbers: points with a curve, and under them what the curve leaves over. */
export function smallFitOptions(rule: string, most: number): ChartOptions<'line'> {
  const stacked = { ...bare, type: 'linear', stack: 'both', offset: false } as const;
  return {
    ...chartOptions(),
    layout: { autoPadding: false, padding: 3 },
    scales: {
      x: { ...bare },
      left: {
        ...stacked,
        display: true,
        stackWeight: 1,
        min: -most,
        max: most,
        grid: {
          display: true,
          drawTicks: false,
          color: ({ tick }) => (tick.value === 0 ? rule : 'transparent'),
        },
      },
      y: { ...stacked, display: true, stackWeight: 3 },
    },
  };
}

/** Free pixels over and under the plot, for lines that run along its edge. */
const edge = 2;

interface Ends {
  low: number;
  high: number;
  isLogarithmic?: true;
}

/** What a scale of a chart is told of an axis. */
const scaleFor = ({ low, high, isLogarithmic }: Ends) => ({
  type: isLogarithmic === true ? logarithmicType : BareScale.id,
  min: low,
  max: high,
});

export interface ChartContent {
  lines: readonly DrawnLine[];
  styles: ReadonlyMap<string, StyleOfRun>;
  joined: boolean;
  /** How readings are drawn, where that was chosen. */
  look?: ReadingsLook | undefined;
  isBottom: boolean;
  roomRight: number;
  across: Ends;
  left: Ends;
  right: Ends | null;
}

/** Puts into a chart what it shows; it is drawn when it is updated. */
export function fillChart(
  chart: Pick<LineChart, 'data'> & { options: ChartOptions<'line'> },
  { lines, styles, joined, look, isBottom, roomRight, across, left, right }: ChartContent,
): void {
  const { x, y, right: second } = chart.options.scales ?? {};
  if (x === undefined || y === undefined || second === undefined) return;
  Object.assign(x, scaleFor(across));
  Object.assign(y, scaleFor(left));
  if (right !== null) Object.assign(second, scaleFor(right));
  chart.options.layout = {
    autoPadding: false,
    padding: {
      left: plotLeft(),
      right: right === null ? roomRight : plotLeft(),
      top: edge + headHeight(),
      bottom: edge + (isBottom ? axisHeight() : edge),
    },
  };
  Object.assign(chart.options.plugins ?? {}, { bands: { bands: bandsOf(lines, styles) } });
  const colourOf = colourIn(lines, styles);
  chart.data.datasets = lines.flatMap((line) => datasetsOf(line, styles, joined, colourOf(line), look));
}

/** What the chart draws of one run. */
function datasetsOf(
  line: DrawnLine,
  styles: ReadonlyMap<string, StyleOfRun>,
  joined: boolean,
  color: string,
  chosen: ReadingsLook | undefined,
): ChartDataset<'line', Point[]>[] {
  const { style, front } = styles.get(line.runId) ?? { style: 0, front: false };
  const { dash, marker } = runStyle(style);
  const data = points(line);
  const isDots = line.isDots === true;
  const allMarked = !line.isBand && (isDots || data.length <= few || (!joined && data.length <= many));
  // What stands beside the first quantity of a trace has hollow marks.
  const isSecond = line.place > 0;
  const look = {
    yAxisID: line.side === 'right' ? 'right' : 'y',
    borderColor: color,
    backgroundColor: isSecond ? colours.sheet : color,
    // Over another quantity the points are what counts; the line only tells their order.
    borderWidth: joined || chosen === 'line' || chosen === 'both' ? (front ? 2 : 1.5) : 0.6,
    pointStyle: marker,
    order: front ? 1 : 2,
  };
  // Where lines are long, a marker now and then is enough to tell runs apart without colour. They are points of their own,
  // since options that differ from point to point cost the chart more than all its drawing.
  const every = Math.max(1, Math.round(data.length / markers));
  const isEach = chosen === undefined ? allMarked : chosen !== 'line';
  const marked = isEach || chosen === 'line' ? [] : data.filter((_, i) => i % every === every >> 1);
  const radius = isEach ? (data.length <= many ? 3 : 1.8) : joined || chosen === 'line' ? 0 : 1.2;
  return [
    ...(line.isBand
      ? []
      : [
          {
            ...look,
            data,
            borderDash: joined && dash.length > 0 ? dash : unbroken,
            showLine: chosen === undefined ? !isDots : chosen !== 'points',
            pointRadius: radius,
          },
        ]),
    ...(marked.length > 0 ? [{ ...look, data: marked, showLine: false, pointRadius: 3 }] : []),
  ];
}

/** The bands of a trace, the run in front last. */
function bandsOf(lines: readonly DrawnLine[], styles: ReadonlyMap<string, StyleOfRun>): Band[] {
  const colourOf = colourIn(lines, styles);
  const isFront = ({ runId }: DrawnLine) => Number(styles.get(runId)?.front === true);
  return lines
    .filter(({ isBand }) => isBand)
    .sort((a, b) => isFront(a) - isFront(b))
    .map(({ runId, place, side, x, y }) => ({ side, x, y, color: colourOf({ runId, place }) }));
}

export function points({ x, y }: Line): Point[] {
  const out = new Array<Point>(x.length);
  for (let i = 0; i < x.length; i++) out[i] = { x: x[i], y: y[i] };
  return out;
}
