import { type TriedRelation } from '@heuristor/core';
import { Chart, type Point } from 'chart.js';
import { useEffect, useRef } from 'react';
import { colours } from '../../ui/colours';
import { useLook } from '../../ui/look';
import { type LineChart, smallFitOptions } from '../../traces/chartSetup';

type Fitted = Extract<TriedRelation['found'], { kind: 'fitted' }>;

interface Props {
  x: Float64Array;
  y: Float64Array;
  fitted: Fitted;
}

const pointsOf = (x: Float64Array, y: Float64Array): Point[] =>
  Array.from(x, (at, i) => ({ x: at, y: y[i] }));

/** A relation drawn small through the points, and what it leaves over under it. */
export function SmallFit({ x, y, fitted }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const look = useLook();
  useEffect(() => {
    if (canvas.current === null) return;
    const { curve, residuals } = fitted;
    const dots = { showLine: false, pointRadius: 1.4, pointStyle: 'circle' as const, borderWidth: 0 };
    const line = { pointRadius: 0, borderWidth: 1.5 };
    const chart: LineChart = new Chart<'line', Point[]>(canvas.current, {
      type: 'line',
      data: {
        datasets: [
          { ...line, data: pointsOf(curve.x, curve.y), yAxisID: 'y', borderColor: colours.text },
          { ...dots, data: pointsOf(x, y), yAxisID: 'y', pointBackgroundColor: colours.act },
          {
            ...dots,
            data: pointsOf(residuals.x, residuals.y),
            yAxisID: 'left',
            pointBackgroundColor: fitted.hasPattern ? colours.warnText : colours.quiet,
          },
        ],
      },
      options: smallFitOptions(
        colours.rule,
        1.1 * residuals.y.reduce((most, y) => Math.max(most, Math.abs(y)), 1e-300),
      ),
    });
    return () => chart.destroy();
  }, [x, y, fitted, look]);
  return <canvas ref={canvas} aria-hidden />;
}
