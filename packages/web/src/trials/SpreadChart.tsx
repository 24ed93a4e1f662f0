import { type Plugin } from 'chart.js';
import { type Quantity, type Summary, axisLabel } from '@heuristor/core';
import { runStyle } from '../runs/runStyles';
import { faded } from '../ui/colours';
import { uprightOptions, useChart } from './chartOf';
import { useTrials, useTrialsState } from './context';
import { type TrialRow, type ViewColumn } from './tableView';

export interface SpreadGroup {
  name: string;
  rows: readonly TrialRow[];
  quantities: readonly Quantity[];
  summary: Summary;
}

interface Props {
  value: ViewColumn;
  groups: readonly SpreadGroup[];
}

/** Dots beside each other that would hide each other: a step to one side and the other in turn. */
const asideBy = (i: number, count: number): number => (count < 2 ? 0 : ((i % 5) - 2) * 0.06);

/** The values of a column group by group, with the mean, and one standard deviation to either side. */
export function SpreadChart({ value, groups }: Props) {
  const trials = useTrials();
  const marked = useTrialsState((state) => state.marked);
  const label = axisLabel(value.title, value.unit ?? []);
  const canvas = useChart<'scatter'>(() => {
    const looks = uprightOptions(label);
    return {
      type: 'scatter',
      data: {
        datasets: groups.map(({ name, quantities, rows }, g) => ({
          label: name,
          data: quantities.map((quantity, i) => ({
            x: g + asideBy(i, quantities.length),
            y: quantity.value,
          })),
          pointStyle: runStyle(g).marker,
          pointRadius: rows.map(({ id }) => (id === marked ? 8 : 5)),
          backgroundColor: faded(runStyle(g).color, 0.7),
          borderColor: runStyle(g).color,
        })),
      },
      options: {
        ...looks.usual,
        onClick: (_event, elements) => {
          const [first] = elements;
          trials.mark(
            first === undefined ? null : (groups[first.datasetIndex].rows[first.index]?.id ?? null),
          );
        },
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
        scales: {
          x: {
            type: 'linear',
            min: -0.6,
            max: groups.length - 0.4,
            ...looks.words,
            ticks: {
              ...looks.ofWords,
              stepSize: 1,
              autoSkip: false,
              callback: (at) => groups[Number(at)]?.name ?? '',
            },
            afterBuildTicks: (axis) => {
              axis.ticks = groups.map((_, at) => ({ value: at }));
            },
          },
          y: { ...looks.upright, grace: '10%' },
        },
      },
      plugins: [meansOf(groups)],
    };
  }, [value, groups, marked]);
  return (
    <div className="trial-chart">
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Spread of ${label}. ${groups.map(({ name, quantities }) => `${name}: ${quantities.length} values`).join('; ')}`}
      />
    </div>
  );
}

/** A box of one standard deviation about the mean, behind the dots. */
const meansOf = (groups: readonly SpreadGroup[]): Plugin<'scatter'> => ({
  id: 'means',
  beforeDatasetsDraw({ ctx, scales: { x, y } }) {
    ctx.save();
    groups.forEach(({ summary: { mean, standardDeviation } }, g) => {
      if (mean === null) return;
      const [left, right] = [x.getPixelForValue(g - 0.25), x.getPixelForValue(g + 0.25)];
      const sd = standardDeviation?.value ?? 0;
      const [top, bottom] = [y.getPixelForValue(mean.value + sd), y.getPixelForValue(mean.value - sd)];
      ctx.fillStyle = faded(runStyle(g).color, 0.14);
      ctx.fillRect(left, top, right - left, bottom - top);
      ctx.strokeStyle = runStyle(g).color;
      ctx.lineWidth = 2;
      ctx.beginPath();
      ctx.moveTo(left, y.getPixelForValue(mean.value));
      ctx.lineTo(right, y.getPixelForValue(mean.value));
      ctx.stroke();
    });
    ctx.restore();
  },
});
