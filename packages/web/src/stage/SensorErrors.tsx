import { settableSchema } from '@heuristor/contracts';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { z } from 'zod';
import { live } from '../api/live';
import { useServer } from '../api/queries';
import { type SceneValues } from './scene';
import { StageControl, useSetValues } from './StageControl';

const listSchema = z.array(settableSchema);

/** Those that stay unfolded while a scene goes and comes back, as it does when a device says hello anew. */
const unfolded = new Set<string>();

interface Props {
  code: string;
  values: SceneValues;
}

/** The errors of one stand-in's sensors: noise, steps, offset, drift, lag, limits, lost and wrong echoes; folded away. */
export function SensorErrors({ code, values }: Props) {
  const [isOpen, setOpen] = useState(unfolded.has(code));
  const { answer: list, fault } = useServer(
    `/devices/${encodeURIComponent(code)}/sensor`,
    listSchema,
    isOpen,
  );
  const { valueOf, set } = useSetValues(values, (key, value) =>
    live.control(code, { action: 'set', key, value }),
  );
  return (
    <details
      className="sensor-errors"
      open={isOpen}
      onToggle={({ currentTarget: { open } }) => {
        setOpen(open);
        if (open) unfolded.add(code);
        else unfolded.delete(code);
      }}
    >
      <summary>
        Errors of this sensor (<span className="mono">{code}</span>)
      </summary>
      {fault !== null && <p className="quiet small">{fault}</p>}
      {list?.length === 0 && (
        <p className="quiet small">This sensor only says when something switches; it has no errors to set.</p>
      )}
      {list !== null && list.length > 0 && (
        <>
          {list.map((control) => (
            <StageControl key={control.key} control={control} value={valueOf(control)} onSet={set} />
          ))}
          <Button
            variant="plain"
            size="sm"
            onClick={() => live.control(code, { action: 'do', key: 'itsUsual' })}
          >
            Usual errors
          </Button>
        </>
      )}
    </details>
  );
}
