import { type WayOfRecording } from './way';

export const spot: WayOfRecording = {
  way: 'spot',
  title: 'Spot readings',
  about: 'Set something by hand, type its value, take one reading',
  takes: 'reading',
  // What is read against what was typed is looked at from zero, unless it lies far from it.
  showsZero: 'near',
};
