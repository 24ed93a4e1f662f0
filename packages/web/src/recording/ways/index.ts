import { type Way } from '@heuristor/contracts';
import { away } from './away';
import { pace } from './pace';
import { spot } from './spot';
import { time } from './time';
import { type WayOfRecording } from './way';

export { type WayOfRecording } from './way';

const byWay: Readonly<Record<Way, WayOfRecording>> = { time, spot, away, pace };

/** In the order of the menu. */
export const ways: readonly WayOfRecording[] = Object.values(byWay);

export const wayOf = ({ way }: { way: Way }): WayOfRecording => byWay[way];
