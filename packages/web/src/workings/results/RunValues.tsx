import { type Unit, describe, intervalUnit } from '@heuristor/core';
import { Chart, type Point } from 'chart.js';
import { useEffect, useMemo, useRef } from 'react';
import { useDocuments, usePicture } from '../../investigation/context';
import { shownRuns } from '../../runs/runs';
import { type SeenRun } from '../../runs/seenRun';
import { colours } from '../../ui/colours';
import { useLook } from '../../ui/look';
import { runStyle } from '../../runs/runStyles';
import { ResultText } from '../../ui/ResultText';
import { type ShownResult } from '../../workers/protocol';
import { type LineChart, chartOptions } from '../../traces/chartSetup';
import { useShallow } from 'zustand/react/shallow';

interface Value {
  run: SeenRun;
  result: ShownResult;
}

/** A result in every run that is shown, as dots with their intervals, and the mean and spread over the runs. */
export function RunValues({ entryId, resultKey, unit }: { entryId: string; resultKey: string; unit: Unit }) {
  const shown = useDocuments(useShallow(({ runs }) => shownRuns(runs)));
  const outcomes = usePicture(
    useShallow((picture) => shown.map(({ id }) => picture.outcomes[id]?.[entryId])),
  );
  const values = useMemo(
    () =>
      shown.flatMap((run, i): Value[] => {
        const outcome = outcomes[i];
        const result =
          outcome?.kind === 'results' ? outcome.results.find(({ key }) => key === resultKey) : undefined;
        return result === undefined || !Number.isFinite(result.value) ? [] : [{ run, result }];
      }),
    [shown, outcomes, resultKey],
  );
  if (values.length < 2) return null;
  const numbers = Float64Array.from(values, ({ result }) => result.value);
  const { mean, standardDeviation } = describe(numbers);
  const [{ result: first }] = values;
  const spread = standardDeviation > 0 ? standardDeviation : null;
  return (
    <div className="run-values" role="region" aria-label={`${first.name} in every run`}>
      <div className="run-values-chart">
        <Dots values={values} mean={mean} />
      </div>
      <table>
        <tbody>
          {values.map(({ run, result }) => (
            <tr key={run.id}>
              <th>{run.name}</th>
              <td className="mono">
                <ResultText result={result} unit={unit} />
              </td>
            </tr>
          ))}
          <tr className="over-runs">
            <th>mean of {values.length} runs</th>
            <td className="mono" data-over-runs="mean">
              <ResultText
                result={{
                  ...first,
                  value: mean,
                  halfWidth: spread === null ? null : spread / Math.sqrt(values.length),
                  roundTo: spread,
                }}
                unit={unit}
              />
            </td>
          </tr>
          {spread !== null && (
            <tr>
              <th>sd over runs</th>
              <td className="mono">
                <ResultText
                  result={{
                    value: spread,
                    halfWidth: null,
                    roundTo: spread,
                    unit: intervalUnit(first.unit),
                  }}
                  unit={intervalUnit(unit)}
                />
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

function Dots({ values, mean }: { values: readonly Value[]; mean: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const look = useLook();
  useEffect(() => {
    if (canvas.current === null) return;
    const at = (i: number, value: number): Point => ({ x: value, y: values.length - i });
    const ends = values.flatMap(({ result: { value, halfWidth } }) => [
      value - (halfWidth ?? 0),
      value + (halfWidth ?? 0),
    ]);
    const [low, high] = [Math.min(...ends), Math.max(...ends)];
    const room = 0.08 * (high - low || Math.abs(high) || 1);
    const options = chartOptions();
    const chart: LineChart = new Chart<'line', Point[]>(canvas.current, {
      type: 'line',
      data: {
        datasets: [
          {
            data: [at(0, mean), at(values.length - 1, mean)],
            borderColor: colours.quiet,
            borderDash: [3, 3],
            borderWidth: 1,
            pointRadius: 0,
          },
          ...values.flatMap(({ run, result: { value, halfWidth } }, i) => {
            const { color, marker } = runStyle(run.style);
            const dot = {
              data: [at(i, value)],
              pointStyle: marker,
              pointRadius: 4,
              pointBackgroundColor: color,
              borderColor: color,
            };
            if (halfWidth === null) return [dot];
            const bar = { borderColor: color, borderWidth: 2, pointRadius: 0 };
            return [dot, { ...bar, data: [at(i, value - halfWidth), at(i, value + halfWidth)] }];
          }),
        ],
      },
      options: {
        ...options,
        scales: {
          x: { ...options.scales?.x, min: low - room, max: high + room },
          y: { ...options.scales?.y, min: 0.4, max: values.length + 0.6 },
        },
      },
    });
    return () => chart.destroy();
  }, [values, mean, look]);
  return <canvas ref={canvas} aria-hidden />;
}
