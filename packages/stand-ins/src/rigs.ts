import { ball } from './apparatus/ball';
import { beacon } from './apparatus/beacon';
import { bell } from './apparatus/bell';
import { buoy } from './apparatus/buoy';
import { cord } from './apparatus/cord';
import { fallingMagnet } from './apparatus/fallingMagnet';
import { gate } from './apparatus/gate';
import { lamp } from './apparatus/lamp';
import { lifeboat } from './apparatus/lifeboat';
import { mooring } from './apparatus/mooring';
import { rail } from './apparatus/rail';
import { reed } from './apparatus/reed';
import { ringing } from './apparatus/ringing';
import { trolley } from './apparatus/trolley';
import { walker } from './apparatus/walker';
import { weather } from './apparatus/weather';
import { wheel } from './apparatus/wheel';
import { type Rig } from './devices/device';

/** Every apparatus that the demo puts on the link. */
export const rigs: readonly (() => Rig)[] = [
  lifeboat,
  buoy,
  bell,
  trolley,
  mooring,
  cord,
  wheel,
  reed,
  gate,
  beacon,
  ringing,
  lamp,
  fallingMagnet,
  rail,
  weather,
  walker,
  ball,
];
