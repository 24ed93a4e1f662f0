import { type ChannelFields, type Gap, type Plan, type SamplingKind } from '@heuristor/contracts';
import { type Waiting } from './beginnings/beginning';
import { type EndWatch } from './endings/ending';
import { type Stillness } from './stillness';

/** A stream that takes part in a run, as it stood when the run was armed. */
export interface Source {
  code: string;
  stream: number;
  rate: number;
  sampling: SamplingKind;
  /** When reading 0 was taken, in ms of the server's clock. */
  epoch: number;
  /** Its device went away while the run waited, and has not sent since; `back` where it is there again under that number. */
  missing?: 'away' | 'back';
  tracks: TrackPlan[];
}

/** One quantity of a run and where it comes from. Stored = scale × sent + offset. */
export interface TrackPlan {
  /** Key of the device's channel. */
  channelKey: string;
  /** Place of the channel in the frames of the present stream. */
  channel: number;
  scale: number;
  offset: number;
  /** Where every run begins at zero: what is known of the rest before it. */
  still: Stillness | null;
  /** All that is stored of the channel but how it lies in time. */
  fields: Omit<ChannelFields, 'sampling'>;
}

/** A quantity that is being recorded. */
export interface Track extends TrackPlan {
  code: string;
  rate: number;
  sampling: SamplingKind;
  /** Time of reading 0 after the beginning of the run, in seconds. */
  start: number;
  /** Index of the next reading. */
  next: number;
  /** Time of the last reading, where readings have times of their own. */
  lastTime: number;
  /** Number of readings of a complete run; Infinity without a length. */
  limit: number;
  /**
   * Where the present stream lies on the track's own clock, in readings where they are regular and in seconds where they have
   * times of their own; NaN until its first frame, null while there is none.
   */
  stream: { number: number; shift: number } | null;
  /** The stream that broke off, which the device may go on with; null while there is none. */
  broken: { number: number; shift: number } | null;
  /** Until when a device that is away may still send what it reads meanwhile, in seconds of the run. */
  awaitedUntil: number | null;
  /** Why this track takes no more readings. */
  closed: 'complete' | 'differs' | null;
  /** Readings that did not come, one here and one there. */
  lost: number;
  /** Since when nothing comes, in seconds of the run. */
  awaySince: number | null;
}

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

/** Readings of a stream, as they came. */
export interface Readings {
  kind: 'readings';
  code: string;
  stream: number;
  epoch: number;
  firstIndex: number;
  channels: number;
  values: Float64Array;
  times: Float64Array | null;
}

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
