import { type Chart, type Plugin } from 'chart.js';
import { type Side } from './drawn';
import { pixelFor, scaleOf } from './geometry';

/** Readings that stand closer than the pixels, of one run. */
export interface Band {
  color: string;
  side: Side;
  x: Float64Array;
  /** Least and greatest value, in turn. */
  y: Float64Array;
}

export interface BandOptions {
  bands: Band[];
}

/** Draws bands as filled shapes under the lines: as lines, their zigzags would take a hundred times as long. */
export const bandPlugin: Plugin<'line', BandOptions> = {
  id: 'bands',
  defaults: { bands: [] },
  beforeDatasetsDraw(chart, _args, { bands }) {
    const { ctx, chartArea } = chart;
    ctx.save();
    ctx.beginPath();
    ctx.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
    ctx.clip();
    for (const band of bands) drawBand(chart, band);
    ctx.restore();
  },
};

function drawBand(chart: Chart, { color, side, x, y }: Band): void {
  const { ctx } = chart;
  const [across, up] = [chart.scales.x, scaleOf(chart, side)];
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
      ctx.lineTo(pixelFor(across, x[2 * pair]), pixelFor(up, y[2 * pair + 1]));
    for (let pair = to - 1; pair >= from; pair--)
      ctx.lineTo(pixelFor(across, x[2 * pair]), pixelFor(up, y[2 * pair]));
    ctx.closePath();
    ctx.fill();
    // Where least and greatest are nearly the same, a filled shape would vanish.
    ctx.stroke();
    from = to;
  }
}
