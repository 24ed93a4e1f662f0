import { type Device } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { NavLink, Navigate, useParams } from 'react-router';
import { live } from '../api/live';
import { useDevices } from '../sensors/devices';
import { Head } from '../header/Head';
import { OneScene } from './OneScene';
import { type SceneValues } from './scene';

/** The simulated apparatus in front of the stand-in sensors, one experiment a scene, to be taken in the hand. */
export default function StagePage() {
  const { id, apparatus } = useParams();
  // Beside a bench it is a page of its investigation: the way back leaves everything there as it was.
  const place = id === undefined ? '/stage' : `/investigations/${id}/stage`;
  const devices = useDevices((state) => state.devices);
  const [said, setSaid] = useState<{ of: string; by: Record<string, SceneValues> } | null>(null);
  const staged = devices.filter((device) => device.stage !== null && device.present);
  const scenes = scenesOf(staged);
  const chosen = scenes.find((scene) => scene.apparatus === apparatus);
  const codes = chosen?.devices.map(({ code }) => code).join(' ') ?? '';
  useEffect(() => {
    if (apparatus === undefined) return;
    live.watchStage(apparatus);
    const mine = codes.split(' ');
    const stop = live.onMessage((message) => {
      if (message.type !== 'scene' || !mine.includes(message.code)) return;
      setSaid((before) => ({
        of: apparatus,
        by: { ...(before?.of === apparatus ? before.by : {}), [message.code]: message.values },
      }));
    });
    return () => {
      stop();
      live.watchStage(null);
    };
  }, [apparatus, codes]);
  if (apparatus === undefined && scenes.length > 0) {
    // What stands in front of a sensor of this investigation is what one comes to move.
    const own = scenes.find((scene) => scene.devices.some(({ use }) => use?.investigation === id));
    return <Navigate to={`${place}/${(own ?? scenes[0]).apparatus}`} replace />;
  }
  return (
    <div className="page">
      <Head>
        <span className="title">Stage</span>
      </Head>
      <main className="stage-page">
        <nav className="scene-list" aria-label="Scenes">
          {scenes.map((scene) => (
            <NavLink key={scene.apparatus} to={`${place}/${scene.apparatus}`}>
              <span>{scene.title}</span>
              <span className="mono quiet small">{scene.devices.map(({ code }) => code).join(' ')}</span>
            </NavLink>
          ))}
        </nav>
        {chosen === undefined ? (
          <div className="empty">
            <h2>
              {scenes.length === 0 ? 'No simulated sensor is on the link' : 'This apparatus is not here'}
            </h2>
            <p>
              {scenes.length === 0
                ? 'The Stage shows the apparatus in front of simulated sensors. They start together with Heuristor.'
                : 'Its sensor is not on the link just now. It comes back by itself when it is plugged in again.'}
            </p>
          </div>
        ) : (
          <OneScene
            key={chosen.apparatus}
            title={chosen.title}
            devices={chosen.devices}
            said={said !== null && said.of === apparatus ? said.by : {}}
          />
        )}
      </main>
    </div>
  );
}

interface StagedScene {
  apparatus: string;
  title: string;
  devices: Device[];
}

/** Several devices may stand in front of one apparatus. */
function scenesOf(staged: readonly Device[]): StagedScene[] {
  const scenes = new Map<string, StagedScene>();
  for (const device of staged) {
    if (device.stage === null) continue;
    const { apparatus, title } = device.stage;
    const scene = scenes.get(apparatus);
    if (scene === undefined) scenes.set(apparatus, { apparatus, title, devices: [device] });
    else scene.devices.push(device);
  }
  // Devices come in any order; a scene looks the same every time.
  for (const scene of scenes.values()) scene.devices.sort((a, b) => (a.code < b.code ? -1 : 1));
  return [...scenes.values()].sort((a, b) => (a.title < b.title ? -1 : 1));
}
