import { type TrialPlot } from '@heuristor/contracts';
import { boxOf, histogramOf } from '@heuristor/core';
import { type Chart, type Plugin } from 'chart.js';
import { runStyle } from '../runs/runStyles';
import { colours, faded } from '../ui/colours';
import { fineText } from '../ui/numberText';
import { type SpreadGroup } from './spreadGroup';
import { fontOf } from './chartOf';

type Looks = TrialPlot['spread'];
type Groups = readonly SpreadGroup[];

/** Half the width of what stands behind the values of a group, in groups. */
const half = 0.25;

const valuesOf = ({ quantities }: SpreadGroup): Float64Array =>
  Float64Array.from(quantities, ({ value }) => value);

/** What is painted behind the values, by what is chosen. */
export const behind: Readonly<Record<Looks, (groups: Groups) => Plugin<'scatter'>>> = {
  sd: (groups) =>
    painting((paint) => {
      groups.forEach(({ summary: { mean, standardDeviation } }, g) => {
        if (mean === null) return;
        const sd = standardDeviation?.value ?? 0;
        paint.bar(g, mean.value - sd, mean.value + sd);
        paint.across(g, mean.value);
      });
    }),
  box: (groups) =>
    painting((paint) => {
      groups.forEach((group, g) => {
        const box = boxOf(valuesOf(group));
        if (box === null) return;
        paint.bar(g, box.lowerQuartile, box.upperQuartile, true);
        paint.across(g, box.median);
        paint.whisker(g, box.upperQuartile, box.upperWhisker);
        paint.whisker(g, box.lowerQuartile, box.lowerWhisker);
      });
    }),
  histogram: (groups) => {
    const counted = countsOf(groups);
    const most = Math.max(...counted.flatMap(({ counts }) => [...counts]), 1);
    return painting((paint) => {
      counted.forEach(({ edges, counts }, g) => {
        counts.forEach((count, i) => {
          if (count > 0) paint.bin(g, edges[i], edges[i + 1], count / most, String(count));
        });
      });
    });
  },
};

/** The same in words, for who does not see it. */
export const said: Readonly<Record<Looks, (group: SpreadGroup) => string>> = {
  sd: ({ name, quantities, summary: { mean, standardDeviation } }) =>
    `${name}: ${quantities.length} values${mean === null ? '' : `, mean ${fineText(mean.value)}`}${standardDeviation === null ? '' : `, sd ${fineText(standardDeviation.value)}`}`,
  box: (group) => {
    const box = boxOf(valuesOf(group));
    return box === null
      ? `${group.name}: no value`
      : `${group.name}: median ${fineText(box.median)}, quartiles ${fineText(box.lowerQuartile)} and ${fineText(box.upperQuartile)}`;
  },
  histogram: (group) => {
    const [{ edges, counts }] = countsOf([group]);
    return `${group.name}: ${[...counts].map((count, i) => `${count} from ${fineText(edges[i])}`).join(', ')}`;
  },
};

/** How far the upright axis has to reach for what stands behind the values. */
export function reachOf(look: Looks, groups: Groups): { suggestedMin?: number; suggestedMax?: number } {
  const [{ edges } = { edges: new Float64Array() }] = look === 'histogram' ? countsOf(groups) : [];
  return edges.length === 0 ? {} : { suggestedMin: edges[0], suggestedMax: edges[edges.length - 1] };
}

/** Groups in bins of one width, so that they can be compared: the one that all of them together want. */
function countsOf(groups: Groups): { edges: Float64Array; counts: Float64Array }[] {
  const all = groups.flatMap((group) => [...valuesOf(group)]);
  if (all.length === 0) return groups.map(() => ({ edges: new Float64Array(), counts: new Float64Array() }));
  const { edges } = histogramOf(Float64Array.from(all), 'spread');
  return groups.map((group) => {
    const counts = new Float64Array(edges.length - 1);
    for (const value of valuesOf(group)) {
      let bin = edges.findLastIndex((edge) => value >= edge);
      bin = Math.min(Math.max(bin, 0), counts.length - 1);
      counts[bin]++;
    }
    return { edges, counts };
  });
}

interface Paint {
  bar(group: number, from: number, to: number, isFramed?: boolean): void;
  across(group: number, at: number): void;
  whisker(group: number, from: number, to: number): void;
  bin(group: number, from: number, to: number, share: number, text: string): void;
}

const painting = (work: (brush: Paint) => void): Plugin<'scatter'> => ({
  id: 'behind',
  beforeDatasetsDraw(chart) {
    const { left, top, width, height } = chart.chartArea;
    chart.ctx.save();
    chart.ctx.beginPath();
    chart.ctx.rect(left, top, width, height);
    chart.ctx.clip();
    work(brushOf(chart));
    chart.ctx.restore();
  },
});

function brushOf({ ctx, scales: { x, y } }: Chart<'scatter'>): Paint {
  const left = (group: number) => x.getPixelForValue(group - half);
  const right = (group: number) => x.getPixelForValue(group + half);
  const line = (x0: number, y0: number, x1: number, y1: number) => {
    ctx.beginPath();
    ctx.moveTo(x0, y0);
    ctx.lineTo(x1, y1);
    ctx.stroke();
  };
  const inkOf = (group: number) => {
    ctx.strokeStyle = runStyle(group).color;
    ctx.fillStyle = faded(runStyle(group).color, 0.14);
    ctx.lineWidth = 2;
  };
  return {
    bar(group, from, to, isFramed = false) {
      inkOf(group);
      const [top, bottom] = [y.getPixelForValue(to), y.getPixelForValue(from)];
      ctx.fillRect(left(group), top, right(group) - left(group), bottom - top);
      if (!isFramed) return;
      ctx.lineWidth = 1;
      ctx.strokeRect(left(group), top, right(group) - left(group), bottom - top);
    },
    across(group, at) {
      inkOf(group);
      line(left(group), y.getPixelForValue(at), right(group), y.getPixelForValue(at));
    },
    whisker(group, from, to) {
      inkOf(group);
      ctx.lineWidth = 1;
      const middle = x.getPixelForValue(group);
      const cap = (right(group) - left(group)) / 6;
      line(middle, y.getPixelForValue(from), middle, y.getPixelForValue(to));
      line(middle - cap, y.getPixelForValue(to), middle + cap, y.getPixelForValue(to));
    },
    bin(group, from, to, share, text) {
      inkOf(group);
      const [top, bottom] = [y.getPixelForValue(to), y.getPixelForValue(from)];
      const width = share * (x.getPixelForValue(group + 0.4) - x.getPixelForValue(group - 0.4));
      const start = x.getPixelForValue(group - 0.4);
      ctx.fillStyle = faded(runStyle(group).color, 0.45);
      ctx.fillRect(start, top, width, bottom - top);
      ctx.lineWidth = 1;
      ctx.strokeRect(start, top, width, bottom - top);
      const { family, size } = fontOf('mono', 11);
      if (bottom - top < size) return;
      ctx.font = `${size}px "${family}"`;
      ctx.textBaseline = 'middle';
      ctx.fillStyle = colours.quiet;
      ctx.fillText(text, start + width + 4, (top + bottom) / 2);
    },
  };
}
