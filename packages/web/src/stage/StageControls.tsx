import { type StageControl } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { useId, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { UnitText } from '../ui/UnitText';
import { type Act, type SceneAction, type SceneValues } from './scene';

const echoMilliseconds = 600;

interface Props {
  actions: readonly SceneAction[];
  controls: StageControl[];
  values: SceneValues;
  act: Act;
}

export function StageControls({ actions, controls, values, act }: Props) {
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
          <Form.Range
            id={`${id}${key}`}
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
        {actions.map(({ label, does }) => (
          <Button key={label} variant="plain" onClick={() => does(values).forEach(act)}>
            {label}
          </Button>
        ))}
        <Button variant="act" disabled={values.held !== 1} onClick={() => act({ action: 'release' })}>
          Let go
        </Button>
        <span className="quiet small">or take hold of it in the drawing</span>
      </div>
    </div>
  );
}
