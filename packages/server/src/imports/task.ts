// Types alone: the thread that reads files does not load what lies behind them.
import type { ChannelSampling, ImportAnswer, ImportLayout } from '@heuristor/contracts';
import { type MessagePort } from 'node:worker_threads';
import { type FilePlace } from './numberFile';

/** What the worker that reads files is asked. */
export interface ReadTask {
  file: string;
  /** Files that it writes: columns as they are read, and the numbers of the runs that they make. */
  scratch: string;
  numbers: string;
  /** The zone of the clock that times without one were read off. */
  zone: string;
  choices: ImportAnswer;
  /** How many rows a series of spot readings can hold. */
  mostSpotRows: number;
  /** Where progress is reported, as a share from 0 to 1. */
  port: MessagePort;
}

export interface ReadChannel {
  name: string;
  unit: string;
  timeUnit: string;
  sampling: ChannelSampling;
  /** Where its numbers lie in the file of numbers. */
  values: FilePlace;
  times: FilePlace | null;
  /** Its first numbers. */
  first: number[];
}

export interface ReadRun {
  name: string | null;
  channels: ReadChannel[];
  /** When its first reading was taken; null where the file does not say. */
  begins: string | null;
  /** What a clock showed then, where the file tells no date. */
  since: string | null;
}

/** What it answers. */
export type ReadAnswer =
  | { kind: 'refused'; sentence: string }
  | { kind: 'question'; example: string; encoding: string }
  | {
      kind: 'read';
      encoding: string;
      separator: string;
      decimal: '.' | ',';
      rows: number;
      skipped: number;
      layout: ImportLayout;
      columns: { name: string; unit: string }[];
      runs: ReadRun[];
    };
