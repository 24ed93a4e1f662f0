import { type DeviceChannel } from '@heuristor/contracts';
import { withoutStrays } from '@heuristor/core';
import { Chart, LineController, LineElement, LinearScale, PointElement } from 'chart.js';
import { useEffect, useRef } from 'react';
import { strayFloorOf } from './sensors';
import { keepThreads, threadOf, threadSeconds } from './devices';
import { onTick } from '../ui/ticker';
import { colours } from '../ui/colours';
import { useLook } from '../ui/look';
import { shortText } from '../ui/numberText';

Chart.register(LineController, LineElement, LinearScale, PointElement);

const mostPoints = 160;
const mostPlotted = 1200;

interface Props {
  handle: number;
  index: number;
  channel: DeviceChannel;
  rate: number;
  /** Values that the scale is to show in any case. */
  include?: readonly number[] | null;
  onScale?: (scale: ThreadScale) => void;
  /** How far back it looks. */
  seconds?: number;
  /** With numbers at its axes, to be read from the back of a room. */
  hasAxes?: boolean;
}

/** What stands at the top and at the bottom of a thread, and where these lie in it, in pixels. */
export interface ThreadScale {
  min: number;
  max: number;
  top: number;
  bottom: number;
}

/** Ticks of an axis with numbers as large as those of a trace. */
const tickFont = () => ({
  family: "'IBM Plex Mono', monospace",
  size: 0.8125 * parseFloat(getComputedStyle(document.documentElement).fontSize),
});

/** The last seconds of a channel as a line that scales itself; what is no measurement is left out. */
export function Thread({
  handle,
  index,
  channel,
  rate,
  include = null,
  onScale,
  seconds = threadSeconds,
  hasAxes = false,
}: Props) {
  const { low, high } = channel;
  const noise = Math.max(channel.noise, channel.resolution);
  const floor = strayFloorOf(channel, rate);
  const canvas = useRef<HTMLCanvasElement>(null);
  const look = useLook();
  // Changing these does not make the chart anew.
  const wanted = useRef({ include, onScale });
  useEffect(() => {
    wanted.current = { include, onScale };
  });
  useEffect(() => {
    if (canvas.current === null) return;
    const forget = keepThreads(seconds);
    const axis = () => ({
      display: hasAxes,
      ticks: {
        color: colours.quiet,
        font: tickFont(),
        maxTicksLimit: 7,
        callback: (value: number | string) => shortText(Number(value), 6),
        includeBounds: false,
      },
      grid: { color: colours.grid },
      border: { color: colours.rule },
    });
    const chart = new Chart<'line', { x: number; y: number }[]>(canvas.current, {
      type: 'line',
      data: {
        datasets: [{ data: [], borderColor: colours.act, borderWidth: hasAxes ? 2.5 : 1.5, pointRadius: 0 }],
      },
      options: {
        animation: false,
        parsing: false,
        responsive: true,
        maintainAspectRatio: false,
        events: [],
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
        scales: {
          x: { type: 'linear', ...axis(), min: -seconds, max: 0 },
          y: { type: 'linear', ...axis() },
        },
      },
    });
    let drawn = -1;
    const stop = onTick(() => {
      const { times, values: read, revision } = threadOf(handle, index);
      if (revision === drawn) return;
      drawn = revision;
      const now = performance.now() / 1000;
      const within = (value: number) => (value > low && value < high ? value : NaN);
      const values = floor === null ? read : withoutStrays(read.map(within), floor);
      const stride = Math.max(1, Math.ceil(times.length / (hasAxes ? mostPlotted : mostPoints)));
      const data: { x: number; y: number }[] = [];
      for (let i = times.length - 1; i >= 0; i -= stride)
        if (times[i] > now - seconds) data.push({ x: times[i] - now, y: within(values[i]) });
      data.reverse();
      const good = data.map(({ y }) => y).filter((y) => !Number.isNaN(y));
      good.push(...(wanted.current.include ?? []));
      if (good.length === 0) return;
      const [least, most] = [Math.min(...good), Math.max(...good)];
      // Never magnify noise into drama: the scale spans at least thirty times the sensor's own scatter.
      const middle = (least + most) / 2;
      const half = Math.max((most - least) * 0.55, noise * 15);
      chart.data.datasets[0].data = data;
      if (chart.options.scales?.y !== undefined)
        Object.assign(chart.options.scales.y, { min: middle - half, max: middle + half });
      chart.update('none');
      const { top, bottom } = chart.chartArea;
      wanted.current.onScale?.({ min: middle - half, max: middle + half, top, bottom });
    });
    return () => {
      stop();
      forget();
      chart.destroy();
    };
  }, [handle, index, low, high, noise, floor, seconds, hasAxes, look]);
  return (
    <div className="thread">
      <canvas ref={canvas} aria-hidden />
    </div>
  );
}
