import { type TrialPlot } from '@heuristor/contracts';
import { axisLabel } from '@heuristor/core';
import { runStyle } from '../runs/runStyles';
import { faded } from '../ui/colours';
import { uprightOptions, useChart } from './chartOf';
import { useTrials, useTrialsState } from './context';
import { type SpreadGroup } from './spreadGroup';
import { behind, reachOf, said } from './behindSpread';
import { type ViewColumn } from './tableView';

interface Props {
  value: ViewColumn;
  groups: readonly SpreadGroup[];
  look: TrialPlot['spread'];
}

/** Dots beside each other that would hide each other: a step to one side and the other in turn. */
const asideBy = (i: number, count: number): number => (count < 2 ? 0 : ((i % 5) - 2) * 0.06);

/** The values of a column group by group, with what stands behind them. */
export function SpreadChart({ value, groups, look }: Props) {
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
          pointRadius: look === 'histogram' ? 0 : rows.map(({ id }) => (id === marked ? 8 : 5)),
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
          y: { ...looks.upright, grace: look === 'histogram' ? 0 : '10%', ...reachOf(look, groups) },
        },
      },
      plugins: [behind[look](groups)],
    };
  }, [value, groups, marked, look]);
  return (
    <div className="trial-chart">
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Spread of ${label}. ${groups.map((group) => said[look](group)).join('; ')}`}
      />
    </div>
  );
}
