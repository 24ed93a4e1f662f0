import { tension } from './tension';
import { walk } from './walk';
import { stair } from './stair';
import { fallingMagnet } from './fallingMagnet';
import { lampAndResistor } from './lampAndResistor';
import { ringingCircuit } from './ringingCircuit';
import { pluckedStrip } from './pluckedStrip';
import { bounces } from './bounces';
import { throws } from './throws';
import { twoSprings } from './twoSprings';
import { capacitor } from './capacitor';
import { energyOnSlope } from './energyOnSlope';
import { type Experiment } from './experiment';
import { fallingFence } from './fallingFence';
import { fieldLaw } from './fieldLaw';
import { hangingMass } from './hangingMass';
import { hooke } from './hooke';
import { impulse } from './impulse';
import { pendulum } from './pendulum';
import { resonance } from './resonance';
import { slopeThreeWays } from './slopeThreeWays';

/** Every experiment of the demo whose sheet is kept as a template. */
export const experiments: readonly Experiment[] = [
  pendulum,
  fallingFence,
  slopeThreeWays,
  tension,
  hangingMass,
  impulse,
  hooke,
  capacitor,
  energyOnSlope,
  resonance,
  fieldLaw,
  twoSprings,
  throws,
  bounces,
  pluckedStrip,
  ringingCircuit,
  lampAndResistor,
  fallingMagnet,
  stair,
  walk,
];
