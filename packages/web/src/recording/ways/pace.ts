import { type WayOfRecording } from './way';

export const pace: WayOfRecording = {
  way: 'pace',
  title: 'Following a line',
  about: 'Move so that the trace stays on a line that is drawn before',
  takes: 'run',
  showsZero: false,
};
