import { type Settable } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { useId, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { UnitText } from '../ui/UnitText';
import { type Act, type Scene, type SceneValues } from './scene';

const echoMilliseconds = 600;

interface Props {
  /** Undefined where nobody has drawn the apparatus: its controls are all there is. */
  scene: Scene | undefined;
  controls: readonly Settable[];
  values: SceneValues;
  act: Act;
}

export function StageControls({ scene, controls, values, act }: Props) {
  // What the hand has just set stands until the apparatus, a moment later, says the same.
  const [justSet, setJustSet] = useState<Record<string, { value: number; at: number }>>({});
  const valueOf = (key: string, low: number) => {
    const mine = justSet[key];
    return mine !== undefined && Date.now() - mine.at < echoMilliseconds ? mine.value : (values[key] ?? low);
  };
  const set = (key: string, value: number) => {
    setJustSet((before) => ({ ...before, [key]: { value, at: Date.now() } }));
    act({ action: 'set', key, value });
  };
  const canHold = scene?.canHold ?? false;
  return (
    <div className="stage-controls">
      <div className="stage-actions">
        {scene?.actions.map(({ label, does }) => (
          <Button key={label} variant="plain" onClick={() => does(values).forEach(act)}>
            {label}
          </Button>
        ))}
        {canHold && (
          <Button variant="act" disabled={values.held !== 1} onClick={() => act({ action: 'release' })}>
            Let go
          </Button>
        )}
        {canHold && <span className="quiet small">or take hold of it in the drawing</span>}
      </div>
      {controls.map((control) => (
        <Control key={control.key} control={control} value={valueOf(control.key, control.low)} onSet={set} />
      ))}
    </div>
  );
}

interface ControlProps {
  control: Settable;
  value: number;
  onSet: (key: string, value: number) => void;
}

function Control({ control: { key, label, unit, low, high, step, choices }, value, onSet }: ControlProps) {
  const id = useId();
  if (choices !== undefined)
    return (
      <div>
        <label htmlFor={id}>{label}</label>
        <Form.Select
          id={id}
          size="sm"
          value={Math.round(value)}
          onChange={(event) => onSet(key, Number(event.target.value))}
        >
          {choices.map((words, i) => (
            <option key={words} value={low + i}>
              {words}
            </option>
          ))}
        </Form.Select>
      </div>
    );
  return (
    <div>
      <div className="label-row">
        <label htmlFor={id}>{label}</label>
        <span className="mono">
          {Number(value.toPrecision(4))} <UnitText unit={parseUnit(unit)} />
        </span>
      </div>
      <Form.Range
        id={id}
        min={low}
        max={high}
        step={step}
        value={value}
        onChange={(event) => onSet(key, Number(event.target.value))}
      />
    </div>
  );
}
