import { type ChannelFields, type Gap, type Plan } from '@heuristor/contracts';
import { type Waiting } from './beginnings/beginning';
import { type EndWatch } from './endings/ending';
import { type Readings, type Source, type Track } from './track';

interface Begun {
  plan: Plan;
  /** Beginning of the run, in ms of the server's clock. */
  origin: number;
  /** When the run ends, in seconds after its beginning; Infinity while only a person ends it. */
  endsAt: number;
  /** What else may end it before. */
  endWatch: EndWatch;
  tracks: Track[];
  gaps: Gap[];
  notes: string[];
}

/** All there is to know about the recording of one investigation. */
export type RecorderState =
  | { phase: 'idle' }
  /** Waits for what its plan says begins it. */
  | { phase: 'waiting'; plan: Plan; sources: Source[]; waiting: Waiting; notes: string[] }
  /** Begun, and being entered into the database; the streams keep its readings meanwhile. */
  | ({ phase: 'armed' } & Begun)
  | ({ phase: 'recording' } & Begun)
  /** Complete or stopped; its rest is being stored. */
  | ({ phase: 'ending' } & Begun)
  | { phase: 'failed'; sentence: string };

/** Where a channel is when its device is back; `isWhole` where it has gone on meanwhile and lost nothing. */
export interface Place {
  stream: number;
  channel: number;
  isWhole: boolean;
}

/** What can happen to a recording. */
export type RecorderEvent =
  | { kind: 'arm'; now: number; plan: Plan; sources: Source[] }
  | { kind: 'entered' }
  | { kind: 'not-entered'; sentence: string }
  | Readings
  /** `sendsAgain`: what it reads meanwhile it sends when it is soon back. */
  | { kind: 'left'; code: string; sendsAgain: boolean; now: number }
  /** A device is back; `places` says where its channels are now, null where it is not the one the run knows. */
  | {
      kind: 'returned';
      code: string;
      places: Record<string, Place> | null;
      now: number;
    }
  /** Nothing more of a device is to be believed. */
  | { kind: 'disbelieved'; code: string; sentence: string; now: number }
  | { kind: 'remarked'; sentence: string }
  /** A person begins what waits, without what it waits for. */
  | { kind: 'begin'; now: number }
  | { kind: 'tick'; now: number }
  | { kind: 'stop'; now: number }
  | { kind: 'stored' };

/** What a recording wants done. */
export type RecorderEffect =
  | { kind: 'enter'; plan: Plan; channels: ChannelFields[] }
  /** Feed in again what the streams have kept: what lies before the run is told from the rest by its place. */
  | { kind: 'replay' }
  | { kind: 'append'; track: number; firstIndex: number; values: Float64Array; times: Float64Array | null }
  /** Gaps and sentences have changed. */
  | { kind: 'mark' }
  | { kind: 'finish' };

/** Readings a second are few enough for a hole of this many to be filled in rather than marked as a gap of blocks. */
export const longestFilledHole = 4096;
