import { type Plugin } from 'chart.js';
import { axisLabel } from '@heuristor/core';
import { runStyle } from '../runs/runStyles';
import { colours, faded } from '../ui/colours';
import { type BarSeries } from './categoryBars';
import { fontOf, uprightOptions, useChart } from './chartOf';
import { useTrials, useTrialsState } from './context';
import { type ViewColumn } from './tableView';

interface Props {
  value: ViewColumn;
  categories: readonly string[];
  series: readonly BarSeries[];
}

/** Bars by category, side by side by series, each with its error bar and its value over it. The axis begins at zero. */
export function CategoryChart({ value, categories, series }: Props) {
  const trials = useTrials();
  const marked = useTrialsState((state) => state.marked);
  const label = axisLabel(value.title, value.unit ?? []);
  const canvas = useChart<'bar'>(() => {
    const looks = uprightOptions(label);
    return {
      type: 'bar',
      data: {
        labels: [...categories],
        datasets: series.map(({ name, bars }, i) => ({
          label: name,
          data: bars.map((bar) => bar?.value ?? null),
          backgroundColor: bars.map((bar) =>
            bar?.rows.some(({ id }) => id === marked) === true
              ? runStyle(i).color
              : faded(runStyle(i).color, 0.45),
          ),
          borderColor: runStyle(i).color,
          borderWidth: 1.5,
          maxBarThickness: 90,
        })),
      },
      options: {
        ...looks.usual,
        onClick: (_event, elements) => {
          const [first] = elements;
          const row = first === undefined ? undefined : series[first.datasetIndex].bars[first.index]?.rows[0];
          trials.mark(row?.id ?? null);
        },
        plugins: {
          legend: { display: series.length > 1, labels: { font: fontOf('words'), color: colours.text } },
          tooltip: { enabled: false },
        },
        scales: {
          x: { ...looks.words, ticks: looks.ofWords },
          y: { ...looks.upright, beginAtZero: true, ...reachOf(series) },
        },
      },
      plugins: [barTops(series)],
    };
  }, [value, categories, series, marked]);
  return (
    <div className="trial-chart">
      <canvas ref={canvas} role="img" aria-label={spoken(label, categories, series)} />
    </div>
  );
}

/** Room over bars for their values, in the height of what is drawn. */
const roomForValues = 0.1;

/** Ends of the axis: zero, and all bars with their error bars and values. */
function reachOf(series: readonly BarSeries[]): { suggestedMin: number; suggestedMax: number } {
  let [low, high] = [0, 0];
  for (const { bars } of series)
    for (const bar of bars) {
      if (bar === null) continue;
      low = Math.min(low, bar.value - (bar.half ?? 0));
      high = Math.max(high, bar.value + (bar.half ?? 0));
    }
  const room = roomForValues * (high - low);
  return { suggestedMin: low < 0 ? low - room : 0, suggestedMax: high > 0 ? high + room : 0 };
}

/** What the chart says, for those who do not see it. */
const spoken = (label: string, categories: readonly string[], series: readonly BarSeries[]): string =>
  `Bars of ${label}. ${series
    .flatMap(({ name, bars }) =>
      bars.flatMap((bar, i) =>
        bar === null ? [] : [`${categories[i]}${name === '' ? '' : `, ${name}`}: ${bar.text}`],
      ),
    )
    .join('; ')}`;

/** Error bars, and the values over them. */
const barTops = (series: readonly BarSeries[]): Plugin<'bar'> => ({
  id: 'bar-tops',
  afterDatasetsDraw(chart) {
    const {
      ctx,
      scales: { y },
    } = chart;
    ctx.save();
    ctx.strokeStyle = colours.text;
    ctx.fillStyle = colours.text;
    ctx.lineWidth = 1.5;
    ctx.textAlign = 'center';
    const { family, size } = fontOf('mono', 12);
    ctx.font = `600 ${size}px "${family}"`;
    series.forEach(({ bars }, s) => {
      chart.getDatasetMeta(s).data.forEach((element, i) => {
        const bar = bars[i];
        if (bar === null) return;
        const { x } = element;
        const [low, high] = [bar.value - (bar.half ?? 0), bar.value + (bar.half ?? 0)].map((at) =>
          y.getPixelForValue(at),
        );
        if (bar.half !== null) {
          ctx.beginPath();
          ctx.moveTo(x, low);
          ctx.lineTo(x, high);
          for (const end of [low, high]) {
            ctx.moveTo(x - 5, end);
            ctx.lineTo(x + 5, end);
          }
          ctx.stroke();
        }
        ctx.fillText(bar.text, x, bar.value < 0 ? Math.max(low, high) + size + 4 : Math.min(low, high) - 6);
      });
    });
    ctx.restore();
  },
});
