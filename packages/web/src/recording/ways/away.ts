import { type WayOfRecording } from './way';

export const away: WayOfRecording = {
  way: 'away',
  title: 'Away from the computer',
  about: 'A device records by itself, is carried off, and comes back with its run',
  takes: 'nothing',
  showsZero: false,
};
