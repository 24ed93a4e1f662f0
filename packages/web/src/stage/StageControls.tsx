import { type Settable } from '@heuristor/contracts';
import { type ReactNode } from 'react';
import { Button } from 'react-bootstrap';
import { type Act, type Scene, type SceneValues } from './scene';
import { StageControl, useSetValues } from './StageControl';

interface Props {
  /** Undefined where nobody has drawn the apparatus: its controls are all there is. */
  scene: Scene | undefined;
  controls: readonly Settable[];
  values: SceneValues;
  act: Act;
  children?: ReactNode;
}

export function StageControls({ scene, controls, values, act, children }: Props) {
  const { valueOf, set } = useSetValues(values, (key, value) => act({ action: 'set', key, value }));
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
        <StageControl key={control.key} control={control} value={valueOf(control)} onSet={set} />
      ))}
      {children}
    </div>
  );
}
