import { type Device } from '@heuristor/contracts';
import { Button } from 'react-bootstrap';
import { live } from '../api/live';
import { type Act, type SceneValues } from './scene';
import { sceneOf } from './scenes';
import { SensorErrs } from './SensorErrs';
import { StageControls } from './StageControls';

interface Props {
  title: string;
  devices: readonly Device[];
  /** How the apparatus stands, as each of its devices says; empty until one has. */
  said: Readonly<Record<string, SceneValues>>;
}

/** One experiment: its drawing, its controls, and the devices in front of it. */
export function OneScene({ title, devices, said }: Props) {
  const [first] = devices;
  const { stage } = first;
  if (stage === null) return null;
  const scene = sceneOf(stage.apparatus);
  const act: Act = (control) => live.control(first.code, control);
  const values: SceneValues | undefined =
    Object.keys(said).length === 0 ? undefined : Object.assign({}, ...Object.values(said));
  const outputs = devices.flatMap((device) => device.outputs);
  return (
    <section className="one-scene" aria-label={title}>
      <header>
        <h2>{title}</h2>
        {devices.map(({ code, model, use }) => (
          <span key={code} className="scene-device">
            <span className="quiet">{model}</span> <span className="mono">{code}</span>
            {use !== null && <span className="quiet small"> in “{use.name}”</span>}
            <Button
              variant="plain"
              size="sm"
              aria-label={`Pull its plug: ${code}, for three seconds`}
              title="For three seconds"
              onClick={() => live.control(code, { action: 'do', key: 'unplug' })}
            >
              Pull its plug
            </Button>
          </span>
        ))}
      </header>
      {values === undefined ? (
        <div className="empty">Waiting for the apparatus …</div>
      ) : (
        <div className="scene-body">
          {scene !== undefined && <scene.Drawing values={values} act={act} />}
          <StageControls scene={scene} controls={[...stage.controls, ...outputs]} values={values} act={act}>
            {devices.map(({ code }) => (
              <SensorErrs key={code} code={code} values={said[code] ?? {}} />
            ))}
          </StageControls>
        </div>
      )}
    </section>
  );
}
