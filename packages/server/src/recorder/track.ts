import { type ChannelFields, type SamplingKind } from '@heuristor/contracts';
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
