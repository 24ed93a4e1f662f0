import { type Device } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { live } from '../api/live';
import { useDevices } from '../stores/devices';
import { Head } from '../ui/Head';
import { type Act, type SceneValues } from './scene';
import { sceneOf } from './scenes';
import { StageControls } from './StageControls';

/** The simulated apparatus in front of the stand-in sensors, moving, to be taken in the hand. */
export default function StagePage() {
  const devices = useDevices((state) => state.devices);
  const [values, setValues] = useState<Record<string, SceneValues>>({});
  useEffect(() => {
    live.watch({ stages: true });
    const stop = live.onMessage((message) => {
      if (message.type === 'scene') setValues((before) => ({ ...before, [message.code]: message.values }));
    });
    return () => {
      stop();
      live.watch({ stages: false });
    };
  }, []);
  const stages = devices.filter((device) => device.stage !== null && device.present);
  return (
    <div className="page">
      <Head>
        <span className="title">Stage</span>
      </Head>
      <main className="stages">
        {stages.length === 0 && (
          <div className="empty">
            <h2>No simulated sensor is on the link</h2>
            <p>
              The Stage shows the apparatus in front of simulated sensors. They start together with Heuristor.
            </p>
          </div>
        )}
        {stages.map((device) => (
          <OneStage key={device.code} device={device} values={values[device.code]} />
        ))}
      </main>
    </div>
  );
}

function OneStage({ device, values }: { device: Device; values: SceneValues | undefined }) {
  const { code, stage } = device;
  if (stage === null) return null;
  const scene = sceneOf(stage.apparatus);
  const act: Act = (control) => live.control(code, control);
  return (
    <section className="stage" aria-label={stage.title}>
      <header>
        <h2>{stage.title}</h2>
        <span className="quiet">
          {device.model} <span className="mono">{code}</span>
        </span>
      </header>
      {values === undefined ? (
        <div className="empty">Waiting for the apparatus …</div>
      ) : (
        <>
          {scene !== undefined && <scene.Drawing values={values} act={act} />}
          <StageControls actions={scene?.actions ?? []} controls={stage.controls} values={values} act={act} />
        </>
      )}
    </section>
  );
}
