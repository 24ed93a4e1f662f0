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
import { usePresenter } from '../ui/presenter';

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
  const large = usePresenter((state) => state.large);
  useEffect(() => {
    if (canvas.current === null) return;
    const chart = new Chart(canvas.current, make());
    return () => chart.destroy();
    // What it is made of is told in a list.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [large, ...of]);
  return canvas;
}

/** A number at an axis, as all others are written. */
export const tickText = (value: number | string): string => shortText(Number(value), 8);

/** The type of numbers and words on a chart. */
export const fontOf = (family: 'mono' | 'words', size = 12) => ({
  family: family === 'mono' ? 'IBM Plex Mono' : 'Inter Variable',
  size: size * fontScale(),
});
