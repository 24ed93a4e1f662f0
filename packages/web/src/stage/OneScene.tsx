import { type Device } from '@heuristor/contracts';
import { type ReactNode } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { live } from '../api/live';
import { type Act, type SceneValues } from './scene';
import { sceneOf } from './scenes';
import { SensorErrors } from './SensorErrors';
import { StageControls } from './StageControls';
import { FixedMenu } from '../ui/FixedMenu';

interface Props {
  title: string;
  devices: readonly Device[];
  /** How the apparatus stands, as each of its devices says; empty until one has. */
  said: Readonly<Record<string, SceneValues>>;
}

/** One experiment: its drawing, its controls, and the devices in front of it. */
export function OneScene({ title, devices, said }: Props) {
  return (
    <section className="one-scene" aria-label={title}>
      <header>
        <h2>{title}</h2>
        {devices.map(({ code, model, use, away }) => (
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
            <Button
              variant="plain"
              size="sm"
              aria-label={`Take it out of reach: ${code}, for three seconds`}
              title="For three seconds it goes on reading, and is not heard"
              onClick={() => live.control(code, { action: 'do', key: 'outOfReach' })}
            >
              Out of reach
            </Button>
            {away !== null && <Carry code={code} />}
          </span>
        ))}
      </header>
      <SceneBody devices={devices} said={said}>
        {devices.map(({ code }) => (
          <SensorErrors key={code} code={code} values={said[code] ?? {}} />
        ))}
      </SceneBody>
    </section>
  );
}

interface BodyProps {
  devices: readonly Device[];
  said: Readonly<Record<string, SceneValues>>;
  /** What stands under the controls. */
  children?: ReactNode;
}

/** The drawing of an apparatus with its controls. */
export function SceneBody({ devices, said, children }: BodyProps) {
  const [first] = devices;
  const { stage } = first;
  if (stage === null) return null;
  const scene = sceneOf(stage.apparatus);
  const act: Act = (control) => live.control(first.code, control);
  const values: SceneValues | undefined =
    Object.keys(said).length === 0 ? undefined : Object.assign({}, ...Object.values(said));
  const outputs = devices.flatMap((device) => device.outputs);
  if (values === undefined) return <div className="empty">Waiting for the apparatus …</div>;
  return (
    <div className="scene-body">
      {scene !== undefined && <scene.Drawing values={values} act={act} />}
      <StageControls scene={scene} controls={[...stage.controls, ...outputs]} values={values} act={act}>
        {children}
      </StageControls>
    </div>
  );
}

/** What is done to a device that records by itself. */
function Carry({ code }: { code: string }) {
  const carries = [
    { key: 'carry', title: 'Carry it off for ten seconds' },
    { key: 'carryAndPress', title: 'Carry it off and press its button there' },
    { key: 'carryAndDrop', title: 'Carry it off and drop it, so that its battery falls out' },
    { key: 'button', title: 'Press its button' },
  ];
  return (
    <Dropdown as="span" align="end">
      <Dropdown.Toggle variant="plain" size="sm" className="no-caret" aria-label={`Carry off ${code}`}>
        Carry it off …
      </Dropdown.Toggle>
      <FixedMenu>
        {carries.map(({ key, title }) => (
          <Dropdown.Item key={key} onClick={() => live.control(code, { action: 'do', key })}>
            {title}
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}
