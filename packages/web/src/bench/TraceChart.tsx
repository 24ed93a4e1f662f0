import {
  type ChartDataset,
  type Point,
  Chart,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
} from 'chart.js';
import { axisLabel } from '@heuristor/core';
import { type CSSProperties, type ReactNode, type Ref, type RefObject, useEffect, useRef } from 'react';
import { usePicture } from '../session/context';
import { usePresenter } from '../stores/presenter';
import { colours } from '../theme/colours';
import { runStyle } from '../theme/runStyles';
import { type DrawnLine } from '../workers/compose';
import { type Line } from '../workers/protocol';
import { type Band, bandPlugin } from './bands';
import { tellPlot } from './panelPlot';
import { type RegionBounds, axisHeight, fontScale, plotLeft } from './geometry';
import { lineLabelsOf } from './lineLabels';
import { type Marks, type OverLayer, type UnderLayer, paintOver, paintUnder } from './traceLayers';

Chart.register(LineController, LineElement, LinearScale, PointElement);

export interface StyleOfRun {
  style: number;
  front: boolean;
}

interface Props {
  traceKey: string;
  regions: RegionBounds[];
  styles: ReadonlyMap<string, StyleOfRun>;
  joined: boolean;
  isBottom: boolean;
  /** Pixels at the right of all plots of the stack. */
  roomRight: number;
  canvases: RefObject<Map<string, HTMLCanvasElement[]>>;
  /** Where it is being moved among the others. */
  frameRef?: Ref<HTMLDivElement>;
  frameStyle?: CSSProperties;
  /** What stands in it beside the plot. */
  children?: ReactNode;
}

type Layers = UnderLayer & OverLayer;

const mono = (size: number) => ({ family: 'IBM Plex Mono', size });
const withTrueMinus = (value: number | string) =>
  String(typeof value === 'number' ? Number(value.toPrecision(10)) : value).replace('-', '−');

const few = 80;
/** Points of one quantity against another that are marked one by one; of more, small dots are enough. */
const many = 400;
const markers = 12;

export function TraceChart({
  traceKey,
  regions,
  styles,
  joined,
  isBottom,
  roomRight,
  canvases,
  frameRef,
  frameStyle,
  children,
}: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const under = useRef<HTMLCanvasElement>(null);
  const over = useRef<HTMLCanvasElement>(null);
  const layers = useRef<Layers>({
    regions: [],
    target: null,
    curves: [],
    pinned: [],
    strays: [],
    aside: [],
    bars: [],
    arrows: [],
    lineLabels: [],
    label: '',
    rightLabel: null,
    bottomLabel: null,
  });
  const chart = useRef<Chart<'line', Point[]> | null>(null);
  const trace = usePicture(({ traces }) => traces.find(({ key }) => key === traceKey));
  const frame = usePicture((picture) => picture.frame);
  const large = usePresenter((state) => state.large);

  useEffect(() => {
    const [below, element, above] = [under.current, canvas.current, over.current];
    if (below === null || element === null || above === null) return;
    const size = 12 * fontScale();
    const left = plotLeft();
    const known = canvases.current;
    known.set(traceKey, [below, element, above]);
    const tick = { color: colours.quiet, font: mono(size), callback: withTrueMinus };
    const created = new Chart<'line', Point[]>(element, {
      type: 'line',
      data: { datasets: [] },
      plugins: [
        bandPlugin,
        {
          id: 'layers',
          // Whatever moves the chart's scales moves what lies under and over it.
          afterDraw(drawn) {
            tellPlot(element, drawn);
            paintUnder(below, drawn, layers.current);
            paintOver(above, drawn, layers.current);
          },
        },
      ],
      options: {
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
      },
    });
    chart.current = created;
    return () => {
      known.delete(traceKey);
      created.destroy();
      chart.current = null;
    };
    // The type's size is read when the chart is made, so another size makes another chart.
  }, [traceKey, canvases, large]);

  const label = trace === undefined ? '' : axisLabel(trace.symbol, trace.unit);
  const right = trace?.right ?? null;
  const rightLabel = right === null ? null : axisLabel(right.symbol, right.unit);
  const quantities = trace?.quantities;
  const bottomLabel =
    isBottom && frame !== null ? axisLabel(frame.horizontal.symbol, frame.horizontal.unit) : null;
  const target = trace?.target;
  const curves = trace?.curves;
  const markedLines = trace?.lines;
  const markWords = leftOutWords(markedLines ?? []);
  // These come before the chart is drawn, which draws them too; one that has not been laid out yet has no scales to draw in.
  useEffect(() => {
    layers.current = { ...layers.current, regions, target: target ?? null };
    const [below, current] = [under.current, chart.current];
    if (below !== null && current !== null && 'x' in current.scales)
      paintUnder(below, current, layers.current);
  }, [regions, target, large]);
  useEffect(() => {
    layers.current = {
      ...layers.current,
      curves: (curves ?? []).map((curve) => ({ ...curve, front: styles.get(curve.runId)?.front === true })),
      pinned: marksOf('pinned', markedLines ?? [], styles),
      strays: marksOf('strays', markedLines ?? [], styles),
      aside: marksOf('aside', markedLines ?? [], styles),
      bars: barsOf(markedLines ?? [], styles),
      arrows: joined ? [] : arrowsOf(markedLines ?? [], styles),
      lineLabels: lineLabelsOf(markedLines ?? [], quantities ?? [], styles),
      label,
      rightLabel,
      bottomLabel,
    };
    const [current, above] = [chart.current, over.current];
    if (current !== null && above !== null && 'x' in current.scales)
      paintOver(above, current, layers.current);
  }, [curves, markedLines, quantities, styles, joined, label, rightLabel, bottomLabel, large]);

  const lines = trace?.lines;
  const [low, high] = [trace?.low, trace?.high];
  const [rightLow, rightHigh] = [right?.low, right?.high];
  const [from, to] = [frame?.sight.from, frame?.sight.to];
  useEffect(() => {
    const current = chart.current;
    if (current === null || lines === undefined || from === undefined) return;
    const { x, y, right: second } = current.options.scales ?? {};
    if (x === undefined || y === undefined || second === undefined) return;
    Object.assign(x, { min: from, max: to });
    Object.assign(x.ticks ?? {}, { display: isBottom });
    x.afterFit = (scale) => {
      scale.height = isBottom ? axisHeight() : 2;
    };
    Object.assign(y, { min: low, max: high });
    const hasRight = rightLow !== undefined;
    Object.assign(second, hasRight ? { display: true, min: rightLow, max: rightHigh } : { display: false });
    Object.assign(current.options.layout ?? {}, {
      padding: { right: hasRight ? 0 : roomRight, top: 2, left: 0, bottom: 2 },
    });
    Object.assign(current.options.plugins ?? {}, { bands: { bands: bandsOf(lines, styles) } });
    current.data.datasets = lines.flatMap((line) => datasetsOf(line, styles, joined));
    current.update('none');
  }, [lines, low, high, rightLow, rightHigh, roomRight, from, to, styles, joined, isBottom, large]);

  const others = trace?.others.length ?? 0;
  const newest = trace?.lines[trace.lines.length - 1];
  const drawnTo = newest === undefined ? undefined : newest.y[newest.y.length - 1];
  return (
    <div
      ref={frameRef}
      className="trace"
      data-trace={traceKey}
      // The newest reading that is drawn, by which tests and measurements tell what stands on the screen.
      data-newest={drawnTo}
      style={{ ...frameStyle, flex: `${trace?.weight ?? 1} 1 ${isBottom ? axisHeight() : 0}px` }}
    >
      <canvas ref={under} aria-hidden />
      <canvas
        ref={canvas}
        role="img"
        aria-label={trace === undefined ? undefined : `Trace of ${label} for ${trace.lines.length} runs`}
      />
      <canvas ref={over} aria-hidden />
      {children}
      {markWords !== null && (
        <span className="trace-note low" style={isBottom ? { bottom: axisHeight() + 6 } : undefined}>
          {markWords}
        </span>
      )}
      {others > 0 && (
        <span className="trace-note">
          {others === 1 ? 'A run measures' : `${others} runs measure`} something else as {trace?.symbol}; not
          drawn
        </span>
      )}
      {trace !== undefined && trace.lacking.length > 0 && (
        <span className="trace-note">
          {trace.lacking.join(', ')}: a third unit, not drawn. A trace has two axes
        </span>
      )}
    </div>
  );
}

/** What the marks of a trace mean, where there are any. */
function leftOutWords(lines: readonly DrawnLine[]): string | null {
  const words = [
    ...(lines.some(({ pinned }) => pinned !== undefined) ? ['△ at the sensor’s limit'] : []),
    ...(lines.some(({ strays }) => strays !== undefined) ? ['× a wrong echo'] : []),
    ...(lines.some(({ aside }) => aside !== undefined) ? ['○ set aside'] : []),
  ];
  return words.length === 0 ? null : `${words.join(', ')}: left out of what is worked out`;
}

const marksOf = (
  kind: 'pinned' | 'strays' | 'aside',
  lines: readonly DrawnLine[],
  styles: ReadonlyMap<string, StyleOfRun>,
): Marks[] =>
  lines.flatMap(({ runId, side, [kind]: marks }) =>
    marks === undefined ? [] : [{ ...marks, side, color: runStyle(styles.get(runId)?.style ?? 0).color }],
  );

const barsOf = (
  lines: readonly DrawnLine[],
  styles: ReadonlyMap<string, StyleOfRun>,
): OverLayer['bars'][number][] =>
  lines.flatMap(({ runId, side, bars }) =>
    bars === undefined ? [] : [{ ...bars, side, color: runStyle(styles.get(runId)?.style ?? 0).color }],
  );

/** Lines that have a direction: what was read one after the other, one quantity against another. */
const arrowsOf = (
  lines: readonly DrawnLine[],
  styles: ReadonlyMap<string, StyleOfRun>,
): OverLayer['arrows'][number][] =>
  lines.flatMap(({ runId, side, x, y, isDots }) =>
    isDots === true ? [] : [{ x, y, side, color: runStyle(styles.get(runId)?.style ?? 0).color }],
  );

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

function points({ x, y }: Line): Point[] {
  const out = new Array<Point>(x.length);
  for (let i = 0; i < x.length; i++) out[i] = { x: x[i], y: y[i] };
  return out;
}
