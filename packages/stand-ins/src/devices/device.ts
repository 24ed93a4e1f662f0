import {
  type Edges,
  type LinkChannel,
  type LinkStream,
  type Rates,
  type Settable,
} from '@heuristor/contracts';
import { type Apparatus } from '../apparatus/apparatus';
import { type Flaws } from './sensor';

/** A channel as an apparatus puts it in front of itself. */
export interface ChannelPlan {
  channel: LinkChannel;
  /** The true value, in the channel's unit. */
  truth: () => number;
  flaws?: Flaws;
}

/** Something that switches, as an apparatus puts it in front of itself. */
export interface EdgePlan {
  channel: LinkChannel;
  /** Below zero where it is on or blocked: how far it is from switching, so that the moment is found between two looks. */
  margin: () => number;
}

/** A stream of samples at a rate, or of edges: what switches is looked at ten thousand times a second. */
export type StreamPlan =
  | { key: string; sampling: 'regular'; rates: Rates; channels: ChannelPlan[] }
  | { key: string; sampling: 'events'; edges: Edges; channels: EdgePlan[] };

/** A simulated device in front of an apparatus. */
export interface DevicePlan {
  code: string;
  model: string;
  streams: StreamPlan[];
  numbers?: Settable[];
  outputs?: Settable[];
  /** A person has set one of its numbers. */
  number?: (key: string, value: number) => void;
  battery?: number;
  /** So many numbers it can keep by itself. */
  keeps?: number;
}

/** An apparatus with the devices in front of it. Adding one: a file with a function that makes it, and its line in the registry. */
export interface Rig {
  apparatus: Apparatus;
  devices: DevicePlan[];
}

/** What a plan announces of a stream. */
export const announcedOf = (plan: StreamPlan): Omit<LinkStream, 'rates'> & { rates?: Rates } =>
  plan.sampling === 'regular'
    ? {
        key: plan.key,
        sampling: plan.sampling,
        rates: plan.rates,
        channels: plan.channels.map(({ channel }) => channel),
      }
    : {
        key: plan.key,
        sampling: plan.sampling,
        edges: plan.edges,
        channels: plan.channels.map(({ channel }) => channel),
      };

/** A channel in one line: key and symbol, quantity, unit, and its ranges. */
export const channel = (
  key: string,
  symbol: string,
  quantity: string,
  unit: string,
  ...ranges: { key?: string; label?: string; low: number; high: number; noise: number; resolution?: number }[]
): LinkChannel => ({
  key,
  symbol,
  quantity,
  unit,
  ranges: ranges.map((range, i) => ({ key: `range${i + 1}`, resolution: 0, ...range })),
});

/** A channel that is on or off, blocked or clear. */
export const switchChannel = (key: string, symbol: string, quantity: string): LinkChannel =>
  channel(key, symbol, quantity, '1', { low: -1, high: 2, noise: 0 });
