import { z } from 'zod';
import { awayMessages, keptSchema } from './away';
import { finite, plainText } from './basics';
import { keySchema } from './linkBasics';

export { keySchema };

/** The device link: what a device and Heuristor say to each other. `docs/device-link.md` tells it to people. */
export const linkProtocol = 'heuristor-link';
/** The version that this program speaks; devices of versions 1 and 2 are understood too. */
export const linkVersion = 3;
/** A device of version 3 keeps what it read in so many seconds, so that it can send it again after a break of the link. */
export const keptAgainSeconds = 10;

export const deviceCodeSchema = z
  .string()
  .regex(
    /^[A-Z0-9]{1,4}-[A-Z0-9]{1,3}$/,
    'a device code is like K7-D: capital letters and digits around a hyphen',
  );

/** Fastest sample rate of the link, in hertz, and the slowest: a reading an hour. */
const fastest = 100_000;
const slowest = 1 / 3600;

const limits = { low: finite, high: finite };
const isUpright = ({ low, high }: { low: number; high: number }) => low < high;

/** One of the ranges that a channel can be set to. */
const rangeSchema = z
  .object({
    key: keySchema,
    label: plainText.pipe(z.string().min(1).max(40)).optional(),
    ...limits,
    /** Standard deviation of a still reading. */
    noise: finite.nonnegative(),
    /** The smallest step that two readings can differ by; 0 where there is none. */
    resolution: finite.nonnegative().default(0),
  })
  .refine(isUpright, 'low must be below high');
export type LinkRange = z.output<typeof rangeSchema>;

const channelNames = {
  key: keySchema,
  quantity: plainText.pipe(z.string().min(1).max(40)),
  symbol: plainText.pipe(z.string().min(1).max(8)),
  unit: plainText.pipe(z.string().max(20)),
};

export const linkChannelSchema = z.object({
  ...channelNames,
  /** The first one is the usual one. */
  ranges: z.array(rangeSchema).min(1).max(8),
});
export type LinkChannel = z.output<typeof linkChannelSchema>;

/** A number that a person sets: on the Stage, for the device itself (a radius), or for what it drives (a frequency). */
export const settableSchema = z
  .object({
    key: keySchema,
    label: plainText.pipe(z.string().min(1).max(60)),
    unit: plainText.pipe(z.string().max(20)),
    ...limits,
    step: finite.positive(),
    value: finite,
    /** Words for its values, from `low` on in steps of one, where they are kinds and no amounts. */
    choices: z
      .array(plainText.pipe(z.string().min(1).max(40)))
      .max(8)
      .optional(),
  })
  .refine(isUpright, 'low must be below high');
export type Settable = z.infer<typeof settableSchema>;

/** The simulated apparatus in front of a stand-in. Its name picks the drawing on the Stage; a screen that has none shows the controls. */
export const stageSchema = z.object({
  apparatus: keySchema,
  title: z.string().max(60),
  controls: z.array(settableSchema).max(12),
  /** How the sensors of this device err, to be set for trying out what a lab may meet. */
  sensor: z.array(settableSchema).max(64).optional(),
});
export type Stage = z.infer<typeof stageSchema>;

export const samplingKindSchema = z.enum(['regular', 'timed', 'events']);
export type SamplingKind = z.infer<typeof samplingKindSchema>;

const rate = finite
  .min(slowest, 'a rate is at least one reading an hour')
  .max(fastest, `a rate is at most ${fastest} Hz`);

const ratesSchema = z
  .object({
    lowest: rate,
    highest: rate,
    usual: rate,
    /** Where only these can be chosen. */
    only: z.array(rate).min(1).max(60).optional(),
  })
  .refine(
    ({ lowest, highest, usual }) => lowest <= usual && usual <= highest,
    'rates.usual must lie between rates.lowest and rates.highest',
  )
  .refine(
    ({ only, usual }) => only === undefined || only.includes(usual),
    'rates.usual must be one of rates.only',
  );
export type Rates = z.infer<typeof ratesSchema>;

/** Readings without a rate are judged by their own times; the number only says how patient one has to be. */
const unhurried: Rates = { lowest: 1, highest: 1, usual: 1 };

/** What edges are of, and the step in seconds in which the device counts their times. */
export const edgesSchema = z.object({
  of: z.enum(['beam', 'switch']),
  step: finite.positive('the step of a timer is a positive number of seconds').max(1),
});
export type Edges = z.infer<typeof edgesSchema>;

const streamSchema = z
  .object({
    key: keySchema,
    sampling: samplingKindSchema.default('regular'),
    edges: edgesSchema.optional(),
    rates: ratesSchema.optional(),
    channels: z.array(linkChannelSchema).min(1).max(8),
  })
  .refine(
    ({ sampling, rates }) => sampling !== 'regular' || rates !== undefined,
    'a stream of regular samples needs rates',
  )
  .refine(
    ({ sampling, edges }) => sampling === 'events' || edges === undefined,
    'only a stream of events says what its edges are of',
  )
  .transform((stream) => ({ ...stream, rates: stream.rates ?? unhurried }));
export type LinkStream = z.output<typeof streamSchema>;

const helloBegin = {
  type: z.literal('hello'),
  protocol: z.literal(linkProtocol),
  device: z.object({ code: deviceCodeSchema, model: plainText.pipe(z.string().min(1).max(60)) }),
  /** Only a stand-in has a stage: the simulated apparatus in front of it. */
  stage: stageSchema.optional(),
  /** The key that this server gave the device when it was let in; only devices on other machines need one. */
  key: z.string().max(100).optional(),
};

/** Version 1: one stream, one range a channel. */
const helloOneSchema = z.object({
  ...helloBegin,
  version: z.literal(1),
  channels: z
    .array(
      z.object({
        ...channelNames,
        range: z.object(limits).refine(isUpright, 'range.low must be below range.high'),
        noise: finite.nonnegative(),
      }),
    )
    .min(1)
    .max(8),
  sampling: samplingKindSchema.default('regular'),
  rates: ratesSchema,
});

const share = z.number().min(0).max(1);
/** What changes while a device is on the link. */
const stateFields = {
  /** Charge of its battery, 0 to 1. */
  battery: share.optional(),
  /** Strength of its radio signal, 0 to 1. */
  signal: share.optional(),
  /** What there is to say about it, in a sentence; empty where there is nothing any more. */
  remark: plainText.pipe(z.string().max(300)).optional(),
  /** What its outputs stand at, where they were set by hand. */
  outputs: z.record(keySchema, finite).optional(),
};

/** What versions 2 and 3 share. */
const helloFields = {
  ...helloBegin,
  streams: z.array(streamSchema).min(1).max(8),
  /** Numbers of its own that a person sets, such as the radius of a wheel. */
  numbers: z.array(settableSchema).max(8).default([]),
  /** What Heuristor may set, such as the frequency of a driver. */
  outputs: z.array(settableSchema).max(8).default([]),
  state: z.object(stateFields).optional(),
  /** So many numbers it can keep by itself, while it is not connected; absent where it keeps none. */
  keeps: z.number().int().min(100).optional(),
};

const helloTwoSchema = ofUnlikeKeys(z.object({ ...helloFields, version: z.literal(2) }));

/** A stream that goes on while the link was broken: which `start` it belongs to, and the first reading that is still kept. */
const goingOnSchema = z.object({
  of: keySchema,
  stream: z.number().int().nonnegative(),
  from: z.number().int().nonnegative(),
});
export type GoingOn = z.infer<typeof goingOnSchema>;

/** Version 3: a device that comes back may say which streams go on, and send again what was lost. */
const helloThreeSchema = ofUnlikeKeys(
  z.object({ ...helloFields, version: z.literal(3), goesOn: z.array(goingOnSchema).max(8).default([]) }),
);

type Keyed = z.ZodType<{
  streams: { key: string; channels: { key: string }[] }[];
  numbers: Settable[];
  outputs: Settable[];
}>;

function ofUnlikeKeys<S extends Keyed>(schema: S): S {
  return schema
    .refine(({ streams }) => areUnlike(streams.map(({ key }) => key)), 'every stream needs a key of its own')
    .refine(
      ({ streams }) => areUnlike(streams.flatMap(({ channels }) => channels.map(({ key }) => key))),
      'every channel of a device needs a key of its own',
    )
    .refine(
      ({ numbers, outputs }) => areUnlike([...numbers, ...outputs].map(({ key }) => key)),
      'every number and output needs a key of its own',
    );
}

function areUnlike(keys: readonly string[]): boolean {
  return new Set(keys).size === keys.length;
}

export const helloSchema = z.discriminatedUnion('version', [
  helloOneSchema,
  helloTwoSchema,
  helloThreeSchema,
]);
/** A hello as the server reads it. */
export type Hello = z.output<typeof helloSchema>;
/** A hello as a device may write it. */
export type HelloInput = z.input<typeof helloSchema>;

/** What a device is, whatever version of the link it speaks. */
export interface DeviceDescription {
  version: Hello['version'];
  code: string;
  model: string;
  streams: LinkStream[];
  numbers: Settable[];
  outputs: Settable[];
  stage: Stage | null;
  state: DeviceState;
  /** So many numbers it can keep by itself; null of one that keeps none. */
  keeps: number | null;
  /** Streams that went on while its link was broken. */
  goesOn: readonly GoingOn[];
}

export interface DeviceState {
  battery: number | null;
  signal: number | null;
  remark: string;
}

/** What a hello says, in the words of today's version. */
export function describeDevice(hello: Hello): DeviceDescription {
  const both = { version: hello.version, ...hello.device, stage: hello.stage ?? null };
  if (hello.version !== 1) {
    const { battery, signal, remark = '', outputs: standing } = hello.state ?? {};
    return {
      ...both,
      streams: hello.streams,
      numbers: hello.numbers,
      outputs: hello.outputs.map((output) => ({ ...output, value: standing?.[output.key] ?? output.value })),
      state: { battery: battery ?? null, signal: signal ?? null, remark },
      keeps: hello.keeps ?? null,
      goesOn: hello.version === 2 ? [] : hello.goesOn,
    };
  }
  const channels = hello.channels.map(({ range, noise, ...names }) => ({
    ...names,
    ranges: [{ key: 'only', ...range, noise, resolution: 0 }],
  }));
  return {
    ...both,
    streams: [{ key: 'only', sampling: hello.sampling, rates: hello.rates, channels }],
    numbers: [],
    outputs: [],
    state: { battery: null, signal: null, remark: '' },
    keeps: null,
    goesOn: [],
  };
}

/** State of the simulated apparatus: named numbers, a few ten times a second while somebody looks. */
export const sceneSchema = z.object({ type: z.literal('scene'), values: z.record(keySchema, finite) });
export type Scene = z.infer<typeof sceneSchema>;

export const stateSchema = z.object({ type: z.literal('state'), ...stateFields });
export type StateMessage = z.infer<typeof stateSchema>;

export const fromDeviceSchema = z.discriminatedUnion('type', [
  helloSchema,
  sceneSchema,
  stateSchema,
  keptSchema,
]);
export type FromDevice = z.infer<typeof fromDeviceSchema>;

export const controlActionSchema = z.discriminatedUnion('action', [
  z.object({ action: z.literal('set'), key: keySchema, value: finite }),
  /** A hand takes hold; `part` says of what, where there are several things to take hold of. */
  z.object({ action: z.literal('grab'), at: finite, part: keySchema.optional() }),
  z.object({ action: z.literal('release') }),
  /** Something that a hand does at once: a push, a switch, a pluck. */
  z.object({ action: z.literal('do'), key: keySchema }),
]);
export type ControlAction = z.infer<typeof controlActionSchema>;

export const toDeviceSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('welcome'), version: z.number().int() }),
  /** A device on another machine that the teacher has not let in yet: it waits, and sends nothing. */
  z.object({ type: z.literal('waiting') }),
  /** It is let in; it keeps the key and says it in every hello from now on. */
  z.object({ type: z.literal('admitted'), key: z.string() }),
  z.object({
    type: z.literal('start'),
    /** Number of the stream in its frames, new with every start. */
    stream: z.number().int().nonnegative(),
    rate: finite.positive(),
    /** Which of its streams; a device of version 1 has only one. */
    of: keySchema.optional(),
    /** The range of each channel. */
    ranges: z.record(keySchema, keySchema).optional(),
  }),
  /** A stream that went on while the link was broken, from the first reading on that is lacking here. */
  z.object({
    type: z.literal('go-on'),
    of: keySchema,
    stream: z.number().int().nonnegative(),
    from: z.number().int().nonnegative(),
  }),
  z.object({ type: z.literal('stop'), of: keySchema.optional() }),
  /** One of its own numbers, as a person has set it. */
  z.object({ type: z.literal('number'), key: keySchema, value: finite }),
  z.object({ type: z.literal('output'), key: keySchema, value: finite }),
  ...awayMessages,
  z.object({ type: z.literal('flash') }),
  z.object({ type: z.literal('watched'), watched: z.boolean() }),
  z.object({ type: z.literal('control'), control: controlActionSchema }),
  z.object({ type: z.literal('refused'), code: z.string(), message: z.string() }),
]);
export type ToDevice = z.infer<typeof toDeviceSchema>;
