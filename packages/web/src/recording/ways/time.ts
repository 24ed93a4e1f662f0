import { type WayOfRecording } from './way';

export const time: WayOfRecording = {
  way: 'time',
  title: 'Against time',
  about: 'Readings one after the other, or every pass of a gate',
  takes: 'run',
  showsZero: false,
};
