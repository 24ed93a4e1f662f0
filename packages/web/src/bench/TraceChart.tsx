import { type Plugin, Chart, LineController, LineElement, LinearScale, PointElement } from 'chart.js';
import { axisLabel } from '@heuristor/core';
import { type RefObject, useEffect, useRef } from 'react';
import { usePicture } from '../session/context';
import { usePresenter } from '../stores/presenter';
import { colours, faded } from '../theme/colours';
import { runStyle, highlighter } from '../theme/runStyles';
import { type DrawnLine } from '../workers/compose';
import { type RegionBounds, axisHeight, fontScale, plotLeft, plotRight } from './geometry';

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
  canvases: RefObject<Map<string, HTMLCanvasElement>>;
}

const mono = (size: number) => ({ family: 'IBM Plex Mono', size });
const withTrueMinus = (value: number | string) =>
  String(typeof value === 'number' ? Number(value.toPrecision(10)) : value).replace('-', '−');

/** Readings that stand closer than the pixels, of one run. */
interface Band {
  color: string;
  x: Float64Array;
  /** Least and greatest value, in turn. */
  y: Float64Array;
}

interface PaperOptions {
  regions: RegionBounds[];
  bands: Band[];
  label: string;
  bottomLabel: string | null;
}

/** Chart-recorder paper: the sheet, the regions under the lines, and the label of the axis in its corner. */
const paper: Plugin<'line', PaperOptions> = {
  id: 'paper',
  defaults: { regions: [], bands: [], label: '', bottomLabel: null },
  beforeDraw(chart, _args, { regions }) {
    const { ctx, chartArea, scales } = chart;
    ctx.save();
    ctx.fillStyle = colours.sheet;
    ctx.fillRect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
    ctx.beginPath();
    ctx.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
    ctx.clip();
    for (const { letter, start, end } of regions) {
      const { fill, edge } = highlighter(letter);
      const [left, right] = [scales.x.getPixelForValue(start), scales.x.getPixelForValue(end)];
      ctx.globalAlpha = 0.45;
      ctx.fillStyle = fill;
      ctx.fillRect(left, chartArea.top, right - left, chartArea.height);
      ctx.globalAlpha = 1;
      ctx.strokeStyle = edge;
      ctx.lineWidth = 1.5;
      ctx.beginPath();
      for (const x of [left, right]) {
        ctx.moveTo(x, chartArea.top);
        ctx.lineTo(x, chartArea.bottom);
      }
      ctx.stroke();
    }
    ctx.restore();
  },
  beforeDatasetsDraw(chart, _args, { bands }) {
    const { ctx, chartArea } = chart;
    ctx.save();
    ctx.beginPath();
    ctx.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
    ctx.clip();
    for (const band of bands) drawBand(chart, band);
    ctx.restore();
  },
  afterDraw(chart, _args, { label, bottomLabel }) {
    const { ctx, chartArea } = chart;
    const size = 13 * fontScale();
    ctx.save();
    ctx.font = `650 ${size}px "Inter Variable"`;
    ctx.textBaseline = 'top';
    const width = ctx.measureText(label).width;
    ctx.fillStyle = faded(colours.sheet, 0.88);
    ctx.fillRect(chartArea.right - width - 18, chartArea.top + 5, width + 12, size + 6);
    ctx.fillStyle = colours.text;
    ctx.fillText(label, chartArea.right - width - 12, chartArea.top + 8);
    if (bottomLabel !== null) {
      // In the corner under the other axis, where no tick label ever stands.
      ctx.textAlign = 'right';
      ctx.fillText(bottomLabel, chartArea.left - 14, chartArea.bottom + 10);
    }
    ctx.restore();
  },
};

/** A band as one filled shape: drawn as a line, its zigzags would take a hundred times as long. */
function drawBand({ ctx, scales: { x: across, y: up } }: Chart, { color, x, y }: Band): void {
  ctx.fillStyle = ctx.strokeStyle = color;
  ctx.lineWidth = 1;
  const pairs = x.length / 2;
  const isMissing = (pair: number) => y[2 * pair] !== y[2 * pair];
  for (let from = 0; from < pairs;) {
    if (isMissing(from)) {
      from++;
      continue;
    }
    let to = from;
    while (to < pairs && !isMissing(to)) to++;
    ctx.beginPath();
    for (let pair = from; pair < to; pair++)
      ctx.lineTo(across.getPixelForValue(x[2 * pair]), up.getPixelForValue(y[2 * pair + 1]));
    for (let pair = to - 1; pair >= from; pair--)
      ctx.lineTo(across.getPixelForValue(x[2 * pair]), up.getPixelForValue(y[2 * pair]));
    ctx.closePath();
    ctx.fill();
    // Where least and greatest are nearly the same, a filled shape would vanish.
    ctx.stroke();
    from = to;
  }
}

const few = 80;
const markers = 12;

export function TraceChart({ traceKey, regions, styles, joined, isBottom, canvases }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line', { x: number; y: number }[]> | null>(null);
  const trace = usePicture(({ traces }) => traces.find(({ key }) => key === traceKey));
  const frame = usePicture((picture) => picture.frame);
  const large = usePresenter((state) => state.large);

  useEffect(() => {
    const element = canvas.current;
    if (element === null) return;
    const size = 12 * fontScale();
    const left = plotLeft();
    const known = canvases.current;
    known.set(traceKey, element);
    const tick = { color: colours.quiet, font: mono(size), callback: withTrueMinus };
    const created = new Chart<'line', { x: number; y: number }[]>(element, {
      type: 'line',
      data: { datasets: [] },
      plugins: [paper],
      options: {
        animation: false,
        parsing: false,
        normalized: true,
        responsive: true,
        maintainAspectRatio: false,
        events: [],
        // The panels lie close: what would be kept free for half a label is wanted for the lines.
        layout: { autoPadding: false, padding: { right: plotRight, top: 2, left: 0, bottom: 2 } },
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

  useEffect(() => {
    const current = chart.current;
    if (current === null || trace === undefined || frame === null) return;
    const { x, y } = current.options.scales ?? {};
    if (x === undefined || y === undefined) return;
    Object.assign(x, { min: frame.sight.from, max: frame.sight.to });
    Object.assign(x.ticks ?? {}, { display: isBottom });
    x.afterFit = (scale) => {
      scale.height = isBottom ? axisHeight() : 2;
    };
    Object.assign(y, { min: trace.low, max: trace.high });
    Object.assign(current.options.plugins ?? {}, {
      paper: {
        regions,
        bands: bandsOf(trace.lines, styles),
        label: axisLabel(trace.symbol, trace.unit),
        bottomLabel: isBottom ? axisLabel(frame.horizontal.symbol, frame.horizontal.unit) : null,
      },
    });
    current.data.datasets = [
      ...trace.lines.flatMap((line) => {
        const { style, front } = styles.get(line.runId) ?? { style: 0, front: false };
        const { color, dash, marker } = runStyle(style);
        const data = points(line);
        const allMarked = !line.isBand && (!joined || data.length <= few);
        const look = {
          borderColor: color,
          backgroundColor: color,
          borderWidth: front ? 2 : 1.5,
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
            : [{ ...look, data, borderDash: dash, showLine: joined, pointRadius: allMarked ? 3 : 0 }]),
          ...(marked.length > 0 ? [{ ...look, data: marked, showLine: false, pointRadius: 3 }] : []),
        ];
      }),
      ...trace.curves.map((curve) => {
        const front = styles.get(curve.runId)?.front === true;
        return {
          data: points(curve),
          borderColor: front ? colours.text : faded(colours.text, 0.5),
          borderWidth: front ? 1.75 : 1,
          pointRadius: 0,
          order: 0,
        };
      }),
    ];
    current.update('none');
  }, [trace, frame, regions, styles, joined, isBottom, large]);

  const others = trace?.others.length ?? 0;
  const newest = trace?.lines[trace.lines.length - 1];
  const drawnTo = newest === undefined ? undefined : newest.y[newest.y.length - 1];
  return (
    <div
      className="trace"
      data-trace={traceKey}
      // The newest reading that is drawn, by which tests and measurements tell what stands on the screen.
      data-newest={drawnTo}
      style={isBottom ? { flex: `1 1 ${axisHeight()}px` } : undefined}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={
          trace === undefined
            ? undefined
            : `Trace of ${axisLabel(trace.symbol, trace.unit)} for ${trace.lines.length} runs`
        }
      />
      {others > 0 && (
        <span className="trace-note">
          {others === 1 ? 'A run measures' : `${others} runs measure`} something else as {trace?.symbol}; not
          drawn
        </span>
      )}
    </div>
  );
}

/** The bands of a trace, the run in front last. */
function bandsOf(lines: readonly DrawnLine[], styles: ReadonlyMap<string, StyleOfRun>): Band[] {
  const isFront = ({ runId }: DrawnLine) => Number(styles.get(runId)?.front === true);
  return lines
    .filter(({ isBand }) => isBand)
    .sort((a, b) => isFront(a) - isFront(b))
    .map(({ runId, x, y }) => ({ color: runStyle(styles.get(runId)?.style ?? 0).color, x, y }));
}

function points({ x, y }: { x: Float64Array; y: Float64Array }): { x: number; y: number }[] {
  const out = new Array<{ x: number; y: number }>(x.length);
  for (let i = 0; i < x.length; i++) out[i] = { x: x[i], y: y[i] };
  return out;
}
