export { gravity } from './apparatus/apparatus';
export { buoy, buoyRest } from './apparatus/buoy';
export { lifeboat } from './apparatus/lifeboat';
export { type Rig } from './devices/device';
export { motionLimits, motionNoise } from './devices/motionSensor';
export { rigs } from './rigs';
export { simulate } from './simulate';
export { StandIns } from './standIns';
