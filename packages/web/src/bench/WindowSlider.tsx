import { type Entry, fieldsOf } from '@heuristor/core';
import { Form } from 'react-bootstrap';
import { useFrontRun, usePicture, useSession } from '../session/context';

/** Fields that are changed while looking, as sliders: the window of a derivative. */
export function WindowSlider({ entry }: { entry: Entry }) {
  const session = useSession();
  const front = useFrontRun();
  const interval = usePicture(({ outcomes }) => {
    const outcome = outcomes[front?.id ?? '']?.[entry.id];
    return outcome?.kind === 'series' ? outcome.interval : null;
  });
  const values = entry as unknown as Readonly<Record<string, unknown>>;
  const found = fieldsOf(entry).find(([, field]) => field.type === 'integer' && field.slider !== null);
  if (found === undefined || found[1].type !== 'integer') return null;
  const [key, field] = found;
  const value = Number(values[key]);
  const span = interval === null ? '' : ` (${Number(((value - 1) * interval).toPrecision(3))} s)`;
  const settle = () => session.settle();
  return (
    <div className="window-row">
      <Form.Range
        min={field.low}
        max={Math.max(field.slider ?? field.high, value)}
        step={field.odd ? 2 : 1}
        value={value}
        aria-label={`${field.label} of ${entry.name} in readings`}
        onChange={(event) => {
          session.move();
          session.changeEntry(entry.id, { [key]: Number(event.target.value) });
        }}
        onPointerUp={settle}
        onPointerCancel={settle}
        onKeyUp={settle}
        onBlur={settle}
      />
      <span className="quiet small mono text-nowrap">
        {value}
        {span}
      </span>
    </div>
  );
}
