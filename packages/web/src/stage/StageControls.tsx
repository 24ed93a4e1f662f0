import { type Device, type StageControl } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { useId, useState } from 'react';
import { Button } from 'react-bootstrap';
import { UnitText } from '../ui/UnitText';
import { type Act, type SceneValues } from './StagePage';

const echoMilliseconds = 600;

interface Props {
  apparatus: NonNullable<Device['stage']>['apparatus'];
  controls: StageControl[];
  values: SceneValues;
  act: Act;
}

/** Where the apparatus is held before it is let go, for those who would rather press than drag. */
function holdAt(apparatus: Props['apparatus'], values: SceneValues): number {
  return apparatus === 'buoy' ? -(values.amplitude ?? 0.04) : 0.3;
}

export function StageControls({ apparatus, controls, values, act }: Props) {
  const id = useId();
  // What the hand has just set stands until the apparatus, a moment later, says the same.
  const [justSet, setJustSet] = useState<Record<string, { value: number; at: number }>>({});
  const valueOf = (key: string, low: number) => {
    const mine = justSet[key];
    return mine !== undefined && Date.now() - mine.at < echoMilliseconds ? mine.value : (values[key] ?? low);
  };
  return (
    <div className="stage-controls">
      {controls.map(({ key, label, unit, low, high, step }) => (
        <div key={key}>
          <div className="label-row">
            <label htmlFor={`${id}${key}`}>{label}</label>
            <span className="mono">
              {Number(valueOf(key, low).toPrecision(4))} <UnitText unit={parseUnit(unit)} />
            </span>
          </div>
          <input
            id={`${id}${key}`}
            type="range"
            className="form-range"
            min={low}
            max={high}
            step={step}
            value={valueOf(key, low)}
            onChange={(event) => {
              const value = Number(event.target.value);
              setJustSet((before) => ({ ...before, [key]: { value, at: Date.now() } }));
              act({ action: 'set', key, value });
            }}
          />
        </div>
      ))}
      <div className="stage-actions">
        <Button variant="plain" onClick={() => act({ action: 'grab', at: holdAt(apparatus, values) })}>
          {apparatus === 'buoy' ? 'Pull it down and hold' : 'Hold it at the top'}
        </Button>
        <Button variant="act" disabled={values.held !== 1} onClick={() => act({ action: 'release' })}>
          Let go
        </Button>
        {apparatus === 'buoy' && (
          <Button
            variant="plain"
            onClick={() => {
              act({ action: 'grab', at: 0 });
              act({ action: 'release' });
            }}
          >
            Bring to rest
          </Button>
        )}
        <span className="quiet small">or take hold of it in the drawing</span>
      </div>
    </div>
  );
}
