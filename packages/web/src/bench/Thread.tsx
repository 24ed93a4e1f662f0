import { Chart, LineController, LineElement, LinearScale, PointElement } from 'chart.js';
import { useEffect, useRef } from 'react';
import { threadOf } from '../stores/devices';

Chart.register(LineController, LineElement, LinearScale, PointElement);

const refreshMilliseconds = 66;
const threadSeconds = 10;

interface Props {
  handle: number;
  channel: number;
  low: number;
  high: number;
  noise: number;
}

/** The last ten seconds of a channel as a thin line that scales itself; pinned readings are left out. */
export function Thread({ handle, channel, low, high, noise }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (canvas.current === null) return;
    const chart = new Chart<'line', { x: number; y: number }[]>(canvas.current, {
      type: 'line',
      data: { datasets: [{ data: [], borderColor: '#0B6E69', borderWidth: 1.5, pointRadius: 0 }] },
      options: {
        animation: false,
        parsing: false,
        responsive: true,
        maintainAspectRatio: false,
        events: [],
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
        scales: {
          x: { type: 'linear', display: false, min: -threadSeconds, max: 0 },
          y: { type: 'linear', display: false },
        },
      },
    });
    const timer = setInterval(() => {
      const { times, values } = threadOf(handle, channel);
      const now = performance.now() / 1000;
      const data = times
        .map((time, i) => ({ x: time - now, y: values[i] > low && values[i] < high ? values[i] : NaN }))
        .filter((_, i) => times.length < 400 || i % Math.ceil(times.length / 400) === 0);
      const good = data.map(({ y }) => y).filter((y) => !Number.isNaN(y));
      const [least, most] = [Math.min(...good), Math.max(...good)];
      // Never magnify noise into drama: the scale spans at least thirty times the sensor's own scatter.
      const middle = (least + most) / 2;
      const half = Math.max((most - least) * 0.55, noise * 15);
      chart.data.datasets[0].data = data;
      if (chart.options.scales?.y !== undefined)
        Object.assign(chart.options.scales.y, { min: middle - half, max: middle + half });
      chart.update('none');
    }, refreshMilliseconds);
    return () => {
      clearInterval(timer);
      chart.destroy();
    };
  }, [handle, channel, low, high, noise]);
  return (
    <div className="thread">
      <canvas ref={canvas} aria-hidden />
    </div>
  );
}
