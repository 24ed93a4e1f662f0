export { type Apparatus } from './apparatus/apparatus';
export { Buoy } from './apparatus/buoy';
export { Lifeboat, gravity } from './apparatus/lifeboat';
export { MotionSensor, motionChannel } from './devices/motionSensor';
export { SampledApparatus } from './devices/sampledApparatus';
export { LinkClient } from './linkClient';
