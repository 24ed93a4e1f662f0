import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  type ChartConfiguration,
  type ChartType,
  LinearScale,
  PointElement,
  ScatterController,
  LineController,
  LineElement,
} from 'chart.js';
import { useEffect, useRef } from 'react';
import { fontScale } from '../traces/geometry';
import { shortText } from '../ui/numberText';
import { colours } from '../ui/colours';
import { useLook } from '../ui/look';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  LinearScale,
  PointElement,
  ScatterController,
  LineController,
  LineElement,
);

/** A chart on a canvas, made anew where what it shows is another one. */
export function useChart<K extends ChartType>(make: () => ChartConfiguration<K>, of: readonly unknown[]) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const look = useLook();
  useEffect(() => {
    if (canvas.current === null) return;
    const chart = new Chart(canvas.current, make());
    return () => chart.destroy();
    // What it is made of is told in a list.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [look, ...of]);
  return canvas;
}

/** A number at an axis, as all others are written. */
export const tickText = (value: number | string): string => shortText(Number(value), 8);

/** The type of numbers and words on a chart. */
export const fontOf = (family: 'mono' | 'words', size = 12) => ({
  family: family === 'mono' ? 'IBM Plex Mono' : 'Inter Variable',
  size: size * fontScale(),
});

/** How a chart with words under it and an upright axis looks, whatever it shows. */
export const uprightOptions = (label: string) => ({
  usual: {
    animation: false,
    maintainAspectRatio: false,
    layout: { padding: { top: 12, right: 16 } },
  } as const,
  words: {
    grid: { display: false },
    border: { color: colours.rule },
  } as const,
  ofWords: { font: fontOf('words'), color: colours.text },
  upright: {
    grid: { color: colours.grid },
    border: { color: colours.rule },
    ticks: { font: fontOf('mono', 11), color: colours.quiet, callback: tickText },
    title: {
      display: true,
      text: label,
      font: { ...fontOf('words', 13), weight: 'bold' as const },
      color: colours.text,
    },
  },
});
