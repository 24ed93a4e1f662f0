import { axisLabel } from '@heuristor/core';
import { faded } from '../../ui/colours';
import { runStyle } from '../../runs/runStyles';
import { type DrawnGraph, type GraphLine } from './composeGraphs';
import { type StyleOfRun, fillChart } from '../chartSetup';
import { plotRight } from '../geometry';
import { type OverLayer } from '../layers';

/** Puts a graph with axes of its own into a chart; bars are outlines, those of the run in front filled. */
export function fillOwnGraph(
  chart: Parameters<typeof fillChart>[0],
  { lines, sight, low, high, shape }: DrawnGraph,
  styles: ReadonlyMap<string, StyleOfRun>,
): void {
  fillChart(chart, {
    lines: lines.map(({ runId, x, y, isBand }) => ({ runId, x, y, isBand, side: 'left', place: 0 })),
    styles,
    joined: true,
    isBottom: true,
    roomRight: plotRight(false),
    across: { low: sight.from, high: sight.to },
    left: { low, high },
    right: null,
  });
  if (shape === 'line') return;
  chart.data.datasets = chart.data.datasets
    .filter(({ showLine }) => showLine !== false)
    .map((dataset, i) => {
      const { style, front } = styles.get(lines[i].runId) ?? { style: 0, front: false };
      return {
        ...dataset,
        pointRadius: 0,
        fill: front ? 'origin' : false,
        backgroundColor: faded(runStyle(style).color, 0.22),
      };
    });
}

export const graphOverLayer = (
  { lines, horizontal, vertical }: DrawnGraph,
  styles: ReadonlyMap<string, StyleOfRun>,
): OverLayer => ({
  curves: [],
  pinned: [],
  strays: [],
  aside: [],
  bars: [],
  arrows: [],
  lineLabels: [],
  places: lines.flatMap(({ runId, marks }) => {
    const { style, front } = styles.get(runId) ?? { style: 0, front: false };
    return marks.map((mark) => ({ ...mark, color: runStyle(style).color, front }));
  }),
  label: axisLabel(vertical.symbol, vertical.unit),
  rightLabel: null,
  bottomLabel: axisLabel(horizontal.symbol, horizontal.unit),
});

/** What a line is at a place: the nearest of its points, or the bar that stands there with its ends. */
export function readAt(
  { shape }: Pick<DrawnGraph, 'shape'>,
  { x, y, isBand }: Pick<GraphLine, 'x' | 'y' | 'isBand'>,
  at: number,
): { from: number; to: number | null; value: number } | null {
  const last = x.length - 1;
  if (last < 0 || at < x[0] || at > x[last]) return null;
  let right = 0;
  while (right < last && x[right] < at) right++;
  if (shape === 'bars') {
    const left = Math.max(right - 1, 0);
    return { from: x[left], to: x[right], value: y[left] };
  }
  const nearest = right > 0 && at - x[right - 1] < x[right] - at ? right - 1 : right;
  // Of a band, the higher one is what stands out.
  return { from: x[nearest], to: null, value: isBand ? y[nearest | 1] : y[nearest] };
}
