import { stair } from './stair';
import { coil } from './coil';
import { circuit } from './circuit';
import { ball } from './ball';
import { capacitor } from './capacitor';
import { cord } from './cord';
import { gate } from './gate';
import { hangingMass } from './hangingMass';
import { magnet } from './magnet';
import { pendulum } from './pendulum';
import { reed } from './reed';
import { slope } from './slope';
import { spring } from './spring';
import { tether } from './tether';
import { walk } from './walk';
import { type DrawingOf } from './kind';

/** Every drawing, by the key under which guides know it. */
export const drawings: Readonly<Record<string, DrawingOf>> = {
  stair,
  coil,
  circuit,
  ball,
  capacitor,
  cord,
  gate,
  hangingMass,
  magnet,
  pendulum,
  reed,
  slope,
  spring,
  tether,
  walk,
};
