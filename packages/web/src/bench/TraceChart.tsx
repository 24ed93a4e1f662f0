import { type Plugin, Chart, LineController, LineElement, LinearScale, PointElement } from 'chart.js';
import { type Unit, axisLabel } from '@heuristor/core';
import { type RefObject, useEffect, useRef } from 'react';
import { runStyle, highlighter } from '../theme/runStyles';
import { type DrawnTrace } from '../workers/protocol';
import { axisHeight, plotLeft, plotRight, type Viewport } from './geometry';

Chart.register(LineController, LineElement, LinearScale, PointElement);

export interface ShownRegion {
  id: string;
  letter: string;
  start: number;
  end: number;
}

interface Props {
  trace: DrawnTrace;
  viewport: Viewport;
  regions: ShownRegion[];
  styles: Map<string, { style: number; front: boolean }>;
  joined: boolean;
  bottom: { symbol: string; unit: Unit } | null;
  canvases: RefObject<Map<string, HTMLCanvasElement>>;
}

const mono = (size: number) => ({ family: 'IBM Plex Mono', size });
const fontScale = () => parseFloat(getComputedStyle(document.documentElement).fontSize) / 16;
const withTrueMinus = (value: number | string) =>
  String(typeof value === 'number' ? Number(value.toPrecision(10)) : value).replace('-', '−');

/** Chart-recorder paper: the sheet, the regions under the lines, and the label of the axis in its corner. */
const paper: Plugin<'line', { regions: ShownRegion[]; label: string; bottomLabel: string | null }> = {
  id: 'paper',
  defaults: { regions: [], label: '', bottomLabel: null },
  beforeDraw(chart, _args, { regions }) {
    const { ctx, chartArea, scales } = chart;
    ctx.save();
    ctx.fillStyle = '#FBFDFC';
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
  afterDraw(chart, _args, { label, bottomLabel }) {
    const { ctx, chartArea } = chart;
    const size = 13 * fontScale();
    ctx.save();
    ctx.font = `650 ${size}px "Inter Variable"`;
    ctx.textBaseline = 'top';
    const width = ctx.measureText(label).width;
    ctx.fillStyle = 'rgba(251, 253, 252, 0.88)';
    ctx.fillRect(chartArea.right - width - 18, chartArea.top + 5, width + 12, size + 6);
    ctx.fillStyle = '#16282F';
    ctx.fillText(label, chartArea.right - width - 12, chartArea.top + 8);
    if (bottomLabel !== null) {
      // In the corner under the other axis, where no tick label ever stands.
      ctx.textAlign = 'right';
      ctx.fillText(bottomLabel, chartArea.left - 14, chartArea.bottom + 10);
    }
    ctx.restore();
  },
};

const few = 80;

export function TraceChart({ trace, viewport, regions, styles, joined, bottom, canvases }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line', { x: number; y: number }[]> | null>(null);

  useEffect(() => {
    const element = canvas.current;
    if (element === null) return;
    const size = 12 * fontScale();
    const known = canvases.current;
    known.set(trace.key, element);
    const tick = { color: '#566A6C', font: mono(size), callback: withTrueMinus };
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
        layout: { padding: { right: plotRight, top: 1, left: 0, bottom: 0 } },
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
        scales: {
          x: {
            type: 'linear',
            display: true,
            ticks: { ...tick, maxRotation: 0, autoSkipPadding: 24, includeBounds: false },
            grid: { color: '#D3E4DD', tickLength: 4 },
            border: { color: '#C9D6D2' },
          },
          y: {
            type: 'linear',
            ticks: { ...tick, maxTicksLimit: 7, includeBounds: false, padding: 4 },
            grid: { color: (context) => (context.tick.value === 0 ? '#A9C4BB' : '#D3E4DD'), tickLength: 4 },
            border: { color: '#C9D6D2' },
            afterFit: (scale) => {
              scale.width = plotLeft;
            },
          },
        },
      },
    });
    chart.current = created;
    return () => {
      known.delete(trace.key);
      created.destroy();
      chart.current = null;
    };
  }, [trace.key, canvases]);

  useEffect(() => {
    const current = chart.current;
    if (current === null) return;
    const { x, y } = current.options.scales ?? {};
    if (x === undefined || y === undefined) return;
    Object.assign(x, { min: viewport.from, max: viewport.to });
    Object.assign(x.ticks ?? {}, { display: bottom !== null });
    x.afterFit = (scale) => {
      scale.height = bottom === null ? 2 : axisHeight;
    };
    Object.assign(y, { min: trace.low, max: trace.high });
    Object.assign(current.options.plugins ?? {}, {
      paper: {
        regions,
        label: axisLabel(trace.symbol, trace.unit),
        bottomLabel: bottom === null ? null : axisLabel(bottom.symbol, bottom.unit),
      },
    });
    current.data.datasets = [
      ...trace.lines.map((line) => {
        const { style, front } = styles.get(line.runId) ?? { style: 0, front: false };
        const { color, dash, marker } = runStyle(style);
        const sparse = Math.max(1, Math.round(line.x.length / 12));
        const points = !joined || line.x.length <= few;
        return {
          data: Array.from(line.x, (value, i) => ({ x: value, y: line.y[i] })),
          borderColor: color,
          backgroundColor: color,
          borderWidth: front ? 2 : 1.5,
          borderDash: dash,
          showLine: joined,
          pointStyle: marker,
          // Where lines are long, a marker now and then is enough to tell runs apart without colour.
          pointRadius: points
            ? 3
            : ({ dataIndex }: { dataIndex: number }) => (dataIndex % sparse === sparse >> 1 ? 3 : 0),
          order: front ? 1 : 2,
        };
      }),
      ...trace.curves.map((curve) => ({
        data: Array.from(curve.x, (value, i) => ({ x: value, y: curve.y[i] })),
        borderColor: styles.get(curve.runId)?.front === true ? '#16282F' : '#16282F88',
        borderWidth: styles.get(curve.runId)?.front === true ? 1.75 : 1,
        pointRadius: 0,
        order: 0,
      })),
    ];
    current.update('none');
  }, [trace, viewport, regions, styles, joined, bottom]);

  return (
    <div
      className="trace"
      data-trace={trace.key}
      style={bottom === null ? undefined : { flex: `1 1 ${axisHeight}px` }}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Trace of ${axisLabel(trace.symbol, trace.unit)} for ${trace.lines.length} runs`}
      />
    </div>
  );
}
