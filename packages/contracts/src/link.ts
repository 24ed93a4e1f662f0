import { z } from 'zod';
import { finite, plainText } from './basics';

/** The device link, version 1: what a device and Heuristor say to each other. `docs/device-link.md` tells it to people. */
export const linkProtocol = 'heuristor-link';
export const linkVersion = 1;

export const deviceCodeSchema = z
  .string()
  .regex(
    /^[A-Z0-9]{1,4}-[A-Z0-9]{1,3}$/,
    'a device code is like K7-D: capital letters and digits around a hyphen',
  );

const key = z
  .string()
  .regex(/^[a-z][A-Za-z0-9]{0,31}$/, 'a key is a lower-case letter, then letters and digits');

export const linkChannelSchema = z.object({
  key,
  quantity: plainText.pipe(z.string().min(1).max(40)),
  symbol: plainText.pipe(z.string().min(1).max(8)),
  unit: plainText.pipe(z.string().max(20)),
  range: z
    .object({ low: finite, high: finite })
    .refine(({ low, high }) => low < high, 'range.low must be below range.high'),
  /** Standard deviation of a still reading. */
  noise: finite.nonnegative(),
});
export type LinkChannel = z.infer<typeof linkChannelSchema>;

export const stageControlSchema = z.object({
  key,
  label: z.string().min(1).max(60),
  unit: z.string().max(20),
  low: finite,
  high: finite,
  step: finite.positive(),
  value: finite,
});
export type StageControl = z.infer<typeof stageControlSchema>;

/** The simulated apparatus in front of a stand-in. Its name picks the drawing on the Stage; a screen that has none shows the controls. */
export const stageSchema = z.object({
  apparatus: key,
  title: z.string().max(60),
  controls: z.array(stageControlSchema).max(12),
});

export const helloSchema = z.object({
  type: z.literal('hello'),
  protocol: z.literal(linkProtocol),
  version: z.literal(linkVersion),
  device: z.object({ code: deviceCodeSchema, model: plainText.pipe(z.string().min(1).max(60)) }),
  channels: z.array(linkChannelSchema).min(1).max(8),
  /** How its samples lie in time; a device of regular samples need not say so. */
  sampling: z.enum(['regular', 'timed', 'events']).default('regular'),
  rates: z
    .object({ lowest: finite.positive(), highest: finite.positive().max(100_000), usual: finite.positive() })
    .refine(
      ({ lowest, highest, usual }) => lowest <= usual && usual <= highest,
      'rates.usual must lie between rates.lowest and rates.highest',
    ),
  /** Only a stand-in has a stage: the simulated apparatus in front of it. */
  stage: stageSchema.optional(),
  /** The key that this server gave the device when it was let in; only devices on other machines need one. */
  key: z.string().max(100).optional(),
});
/** A hello as the server reads it. */
export type Hello = z.output<typeof helloSchema>;
/** A hello as a device may write it. */
export type HelloInput = z.input<typeof helloSchema>;

/** State of the simulated apparatus: named numbers, a few ten times a second while somebody looks. */
export const sceneSchema = z.object({ type: z.literal('scene'), values: z.record(key, finite) });
export type Scene = z.infer<typeof sceneSchema>;

export const fromDeviceSchema = z.discriminatedUnion('type', [helloSchema, sceneSchema]);
export type FromDevice = z.infer<typeof fromDeviceSchema>;

export const controlActionSchema = z.discriminatedUnion('action', [
  z.object({ action: z.literal('set'), key, value: finite }),
  z.object({ action: z.literal('grab'), at: finite }),
  z.object({ action: z.literal('release') }),
]);
export type ControlAction = z.infer<typeof controlActionSchema>;

export const toDeviceSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('welcome'), version: z.literal(linkVersion) }),
  /** A device on another machine that the teacher has not let in yet: it waits, and sends nothing. */
  z.object({ type: z.literal('waiting') }),
  /** It is let in; it keeps the key and says it in every hello from now on. */
  z.object({ type: z.literal('admitted'), key: z.string() }),
  z.object({ type: z.literal('start'), stream: z.number().int().nonnegative(), rate: finite.positive() }),
  z.object({ type: z.literal('stop') }),
  z.object({ type: z.literal('flash') }),
  z.object({ type: z.literal('watched'), watched: z.boolean() }),
  z.object({ type: z.literal('control'), control: controlActionSchema }),
  z.object({ type: z.literal('refused'), code: z.string(), message: z.string() }),
]);
export type ToDevice = z.infer<typeof toDeviceSchema>;
