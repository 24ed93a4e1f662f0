import { type RegionLine } from '@heuristor/core';
import { useEffect, useMemo, useRef } from 'react';
import { frontRun, presentRuns, shownRuns, useBench } from '../stores/bench';
import { useWorkings } from '../stores/workings';
import { type ShownRegion, TraceChart } from './TraceChart';
import { Overlay } from './Overlay';
import { plotLeft, plotRight } from './geometry';
import { traceCanvases } from './picture';

export function TraceStack() {
  const stack = useRef<HTMLDivElement>(null);
  const runs = useBench((state) => state.runs);
  const rendered = useBench((state) => state.rendered);
  const width = useBench((state) => state.plotWidth);
  const front = frontRun(useBench());
  const lines = useWorkings((state) => state.workings.lines);
  const horizontal = useWorkings((state) => state.workings.horizontal);
  useEffect(() => {
    const element = stack.current;
    if (element === null) return;
    const observer = new ResizeObserver(() =>
      useBench.setState({ plotWidth: Math.max(element.clientWidth - plotLeft - plotRight, 50) }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const styles = useMemo(
    () => new Map(runs.map((run) => [run.id, { style: run.style, front: run.id === front?.id }])),
    [runs, front?.id],
  );
  const regions = useMemo<ShownRegion[]>(
    () => lines.filter((line): line is RegionLine => line.kind === 'region' && line.along === horizontal),
    [lines, horizontal],
  );
  const empty = shownRuns(runs).length === 0;
  const traces = rendered?.traces ?? [];
  return (
    <div className="traces" ref={stack}>
      {empty ? (
        <div className="empty">
          <h2>{presentRuns(runs).length === 0 ? 'No run yet' : 'No run is shown'}</h2>
          <p>
            {presentRuns(runs).length === 0
              ? 'Connect a sensor and press Record, or bring in a file of numbers below. Nothing recorded is ever overwritten.'
              : 'Press a run below to show it.'}
          </p>
        </div>
      ) : (
        rendered !== null &&
        traces.map((trace, i) => (
          <TraceChart
            key={trace.key}
            trace={trace}
            viewport={rendered.viewport}
            regions={regions}
            styles={styles}
            joined={horizontal === 't'}
            bottom={i === traces.length - 1 ? rendered.horizontal : null}
            canvases={traceCanvases}
          />
        ))
      )}
      {!empty && rendered !== null && traces.length > 0 && (
        <Overlay rendered={rendered} width={width} front={front} stack={stack} />
      )}
    </div>
  );
}
