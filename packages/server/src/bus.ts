import {
  type Import,
  type Job,
  type KeptKind,
  type KeptMessage,
  type Plan,
  type RecorderStatus,
  type Run,
  type SampleFrame,
  type Scene,
  type SpotStatus,
} from '@heuristor/contracts';
import { EventEmitter } from 'node:events';
import { type LinkedDevice, type LinkedStream } from './link/device';

/** All that happens and that somebody else may want to hear of; who tells it does not know who listens. */
export interface Happenings {
  /** What screens see of the devices has changed. */
  devices: [];
  /** Readings of a device, as they were sent and as runs take them. */
  readings: [stream: LinkedStream, sent: SampleFrame, taken: SampleFrame];
  /** A device is on the link and let in. */
  welcomed: [device: LinkedDevice];
  /** A device has left the link. */
  gone: [device: LinkedDevice];
  /** The streams of a device that is used begin, also anew where it has come back. */
  back: [device: LinkedDevice];
  /** What a device sends cannot be believed any more. */
  doubt: [device: LinkedDevice, sentence: string];
  /** A device did something that whoever reads its run should know. */
  remark: [device: LinkedDevice, sentence: string];
  /** How a simulated apparatus stands. */
  scene: [device: LinkedDevice, values: Scene['values']];
  /** What a device says that it keeps. */
  kept: [device: LinkedDevice, message: KeptMessage];
  /** Readings of what a device keeps, which were asked for. */
  keptFrame: [device: LinkedDevice, frame: SampleFrame];

  /** A run has come, or something about it has changed. */
  run: [run: Run];
  /** Readings of a run that is being recorded, as a frame for screens. */
  runReadings: [investigation: string, frame: Uint8Array];
  /** What the recorder of an investigation does. */
  recorder: [investigation: string, status: RecorderStatus];
  /** What is being read into spot readings. */
  spots: [investigation: string, status: SpotStatus];
  /** Its name or its plan is another. */
  plan: [investigation: string, plan: { name: string; plan: Plan }];
  /** A document that somebody keeps over its runs was stored. */
  document: [investigation: string, document: { kind: KeptKind; owner: string; version: number }];
  /** Something was written in somebody's notebook; in base 64 where it is short. */
  notebook: [investigation: string, written: { owner: string; at: number; update: string | null }];
  /** Something failed that nobody asked for just now, in a sentence for its screens. */
  fault: [investigation: string, sentence: string];
  /** Whether readings wait for a database that does not take them. */
  backlog: [isWaiting: boolean];
  /** The lease of this process was renewed: a good moment to see to what others have left behind. */
  beat: [];
  /** The lease had run out before it was renewed: others may have taken this process for ended. */
  lapsed: [];
  /** What becomes of something that may wait, for whoever wants it. */
  job: [person: string, job: Job];
  /** What became of a file; it concerns nobody but whoever brings it in. */
  import: [owner: string, state: Import];
}

/** Where what happens in one server is announced and heard. Listeners are called at once, in the order in which they came. */
export class Bus extends EventEmitter<Happenings> {
  constructor() {
    super();
    // Everybody who listens to a device for a second is one more.
    this.setMaxListeners(0);
  }
}
