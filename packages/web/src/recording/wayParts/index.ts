import { type Way } from '@heuristor/contracts';
import { away } from './away';
import { pace } from './pace';
import { type WayParts } from './parts';
import { spot } from './spot';
import { time } from './time';

/** What stands on the bench for each way of recording. */
export const wayParts: Readonly<Record<Way, WayParts>> = { time, spot, pace, away };
