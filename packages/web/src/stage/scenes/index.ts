import { type Scene } from '../scene';
import { buoy } from './buoy';
import { lifeboat } from './lifeboat';

/** Every apparatus that has a drawing; others show their controls alone. */
const scenes: readonly Scene[] = [buoy, lifeboat];

export const sceneOf = (apparatus: string): Scene | undefined =>
  scenes.find((scene) => scene.apparatus === apparatus);
