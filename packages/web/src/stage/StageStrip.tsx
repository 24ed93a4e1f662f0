import { useState } from 'react';
import { Button, CloseButton, Form } from 'react-bootstrap';
import { LayoutSplit } from 'react-bootstrap-icons';
import { useDevices } from '../sensors/devices';
import { SceneBody } from './OneScene';
import { scenesOf, useSaidOf } from './staged';
import { openStrip, placeStrip, useStrip } from './stripState';

/** The apparatus in front of the stand-ins that an investigation uses. */
export function useOwnScenes(investigation: string) {
  const devices = useDevices((state) => state.devices);
  return scenesOf(devices).filter((scene) =>
    scene.devices.some(({ use }) => use?.investigation === investigation),
  );
}

/** The apparatus on the bench, so that one person moves it and sees what comes of it. */
export function StageStrip({ investigation }: { investigation: string }) {
  const isOpen = useStrip((state) => state.isOpen);
  const scenes = useOwnScenes(investigation);
  return isOpen && scenes.length > 0 ? <OpenStrip scenes={scenes} /> : null;
}

function OpenStrip({ scenes }: { scenes: ReturnType<typeof useOwnScenes> }) {
  const place = useStrip((state) => state.place);
  const [wanted, setWanted] = useState<string | null>(null);
  const scene = scenes.find(({ apparatus }) => apparatus === wanted) ?? scenes[0];
  const said = useSaidOf(scene);
  return (
    <section className={`stage-strip ${place}`} aria-label={`Stage: ${scene.title}`}>
      <header>
        {scenes.length === 1 ? (
          <h2>{scene.title}</h2>
        ) : (
          <Form.Select
            aria-label="Apparatus"
            value={scene.apparatus}
            onChange={({ target }) => setWanted(target.value)}
          >
            {scenes.map(({ apparatus, title }) => (
              <option key={apparatus} value={apparatus}>
                {title}
              </option>
            ))}
          </Form.Select>
        )}
        <Button
          variant="bare"
          aria-label={
            place === 'beside' ? 'Put the stage under the traces' : 'Put the stage beside the traces'
          }
          title={place === 'beside' ? 'Under the traces' : 'Beside the traces'}
          onClick={() => placeStrip(place === 'beside' ? 'under' : 'beside')}
        >
          <LayoutSplit aria-hidden className={place === 'beside' ? 'turned' : ''} />
        </Button>
        <CloseButton aria-label="Close the stage" onClick={() => openStrip(false)} />
      </header>
      <SceneBody key={scene.apparatus} devices={scene.devices} said={said} />
    </section>
  );
}
