import { type Scene } from '../scene';
import { ball } from './ball';
import { beacon } from './beacon';
import { bell } from './bell';
import { buoy } from './buoy';
import { cord } from './cord';
import { fallingMagnet } from './fallingMagnet';
import { gate } from './gate';
import { lamp } from './lamp';
import { lifeboat } from './lifeboat';
import { mooring } from './mooring';
import { rail } from './rail';
import { reed } from './reed';
import { ringing } from './ringing';
import { trolley } from './trolley';
import { walker } from './walker';
import { weather } from './weather';
import { wheel } from './wheel';

/** Every apparatus that has a drawing; others show their controls alone. */
const scenes: readonly Scene[] = [
  ball,
  beacon,
  bell,
  buoy,
  cord,
  fallingMagnet,
  gate,
  lamp,
  lifeboat,
  mooring,
  rail,
  reed,
  ringing,
  trolley,
  walker,
  weather,
  wheel,
];

export const sceneOf = (apparatus: string): Scene | undefined =>
  scenes.find((scene) => scene.apparatus === apparatus);
