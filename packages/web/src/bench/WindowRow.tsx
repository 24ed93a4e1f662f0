import { type DerivativeLine } from '@heuristor/core';
import { frontRun, useBench } from '../stores/bench';
import { changeLine, endStep, holdStep } from '../stores/workings';

const widest = 61;

/** The window of a derivative, changed while looking. */
export function WindowRow({ line }: { line: DerivativeLine }) {
  const front = frontRun(useBench());
  const rendered = useBench((state) => state.rendered);
  const outcome = front === undefined ? undefined : rendered?.outcomes[front.id]?.[line.id];
  const interval = outcome?.kind === 'series' ? outcome.interval : null;
  const span = interval === null ? '' : ` (${Number(((line.windowPoints - 1) * interval).toPrecision(3))} s)`;
  return (
    <div className="window-row">
      <input
        type="range"
        className="form-range"
        min={3}
        max={Math.max(widest, line.windowPoints)}
        step={2}
        value={line.windowPoints}
        aria-label={`Window of ${line.name} in readings`}
        onChange={(event) => {
          changeLine(line.id, { windowPoints: Number(event.target.value) });
          holdStep();
        }}
        onPointerUp={endStep}
        onKeyUp={endStep}
        onBlur={endStep}
      />
      <span className="quiet small mono text-nowrap">
        {line.windowPoints}
        {span}
      </span>
    </div>
  );
}
