import { NavLink, Navigate, useParams } from 'react-router';
import { useDevices } from '../sensors/devices';
import { Head } from '../header/Head';
import { OneScene } from './OneScene';
import { scenesOf, useSaidOf } from './staged';

/** The simulated apparatus in front of the stand-in sensors, one experiment a scene, to be taken in the hand. */
export default function StagePage() {
  const { id, apparatus } = useParams();
  // Beside a bench it is a page of its investigation: the way back leaves everything there as it was.
  const place = id === undefined ? '/stage' : `/investigations/${id}/stage`;
  const devices = useDevices((state) => state.devices);
  const scenes = scenesOf(devices);
  const chosen = scenes.find((scene) => scene.apparatus === apparatus);
  const said = useSaidOf(chosen);
  if (apparatus === undefined && scenes.length > 0) {
    // What stands in front of a sensor of this investigation is what one comes to move.
    const own = scenes.find((scene) => scene.devices.some(({ use }) => use?.investigation === id));
    return <Navigate to={`${place}/${(own ?? scenes[0]).apparatus}`} replace />;
  }
  return (
    <div className="page">
      <Head>
        <h1 className="title">Stage</h1>
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
          <OneScene key={chosen.apparatus} title={chosen.title} devices={chosen.devices} said={said} />
        )}
      </main>
    </div>
  );
}
