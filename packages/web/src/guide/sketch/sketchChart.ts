import { type GuideItemOf } from '@heuristor/contracts';
import { axisLabel, parseUnit } from '@heuristor/core';
import { Chart, type ChartConfiguration } from 'chart.js';
import { fontOf, tickText } from '../../trials/chartOf';
import { colours, onPaper } from '../../ui/colours';
import { type Point } from './drawn';

const asXy = (points: readonly Point[]) => points.map(([x, y]) => ({ x, y }));

/** The axes of a sketch, with what was sketched and what is laid over it. */
export function sketchConfiguration(
  { across, upright }: Pick<GuideItemOf<'sketch'>, 'across' | 'upright'>,
  sketched: readonly Point[] = [],
): ChartConfiguration {
  const axis = ({ title, unit, from, to }: typeof across) => ({
    type: 'linear' as const,
    min: from,
    max: to,
    grid: { color: colours.grid },
    border: { color: colours.rule },
    ticks: { font: fontOf('mono', 11), color: colours.quiet, callback: tickText, maxTicksLimit: 6 },
    title: {
      display: true,
      text: axisLabel(title, parseUnit(unit)),
      color: colours.text,
      font: fontOf('words'),
    },
  });
  const line = { showLine: true, pointRadius: 0, borderWidth: 2.5, data: asXy(sketched) };
  return {
    type: 'scatter',
    data: {
      datasets: [
        { ...line, borderColor: colours.regionLilacEdge },
        { ...line, borderColor: colours.text, borderWidth: 1.2, data: [] },
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      events: [],
      scales: { x: axis(across), y: axis(upright) },
    },
  };
}

/** Puts what is sketched, and what lies over it, onto its chart. */
export function showOn(chart: Chart, sketched: readonly Point[], laid: readonly Point[]): void {
  const [first, second] = chart.data.datasets;
  first.data = asXy(sketched);
  second.data = asXy(laid);
  chart.update('none');
}

const pictured = { width: 560, height: 320, sharper: 2 } as const;

/** A sketch as a picture (JPEG), for what leaves the room. */
export async function sketchPicture(
  item: Pick<GuideItemOf<'sketch'>, 'across' | 'upright'>,
  points: readonly Point[],
): Promise<{ jpeg: Uint8Array; width: number; height: number }> {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [pictured.width, pictured.height];
  const onWhite = {
    id: 'on white',
    beforeDraw: ({ ctx, width, height }: Chart) => {
      ctx.fillStyle = '#fff';
      ctx.fillRect(0, 0, width, height);
    },
  };
  const chart = onPaper(() => {
    const { options, ...configuration } = sketchConfiguration(item, points);
    return new Chart(canvas, {
      ...configuration,
      options: { ...options, responsive: false, devicePixelRatio: pictured.sharper },
      plugins: [onWhite],
    } as ChartConfiguration);
  });
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.92));
  chart.destroy();
  if (blob === null) throw new Error('A sketch could not be made into a picture.');
  const { width, height, sharper } = pictured;
  return {
    jpeg: new Uint8Array(await blob.arrayBuffer()),
    width: width * sharper,
    height: height * sharper,
  };
}
