import { z } from 'zod';
import { finite, plainText } from './basics';
import { edgesSchema } from './link';
import { appliedSchema } from './setup';

/** How the readings of a stored channel lie in time; the times themselves are stored with the readings where they are not regular. */
export const channelSamplingSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('regular'), start: finite, interval: finite.positive() }),
  z.object({ kind: z.literal('timed') }),
  z.object({ kind: z.literal('events') }),
]);
export type ChannelSampling = z.infer<typeof channelSamplingSchema>;

/** What a channel of a run is, wherever it goes: table, HTTP, live stream, browser. */
export const channelFieldsSchema = z.object({
  key: plainText,
  symbol: plainText,
  quantity: plainText,
  unit: z.string(),
  timeUnit: z.string(),
  sampling: channelSamplingSchema,
  /** Limits of the sensor after zero and sign. */
  low: finite.nullable(),
  high: finite.nullable(),
  /** Standard deviation of a still reading. */
  noise: finite.nullable(),
  /** The smallest step that two readings can differ by; 0 where there is none or nobody knows. */
  resolution: finite,
  /** Of events: what their edges are of, and the step in which their times were counted; null where nobody knows. */
  edges: edgesSchema.nullable(),
  deviceCode: z.string().nullable(),
  /** What the server made of what the device sent; null where no device did. */
  applied: appliedSchema.nullable(),
});
export type ChannelFields = z.infer<typeof channelFieldsSchema>;

/** A channel that no sensor has measured: of a file, or made up. It is called by its key where nothing else is said. */
export const channelOf = (
  fields: Pick<ChannelFields, 'key' | 'unit' | 'timeUnit' | 'sampling'> & Partial<ChannelFields>,
): ChannelFields => ({
  symbol: fields.key,
  quantity: fields.key,
  low: null,
  high: null,
  noise: null,
  resolution: 0,
  edges: null,
  deviceCode: null,
  applied: null,
  ...fields,
});

export const channelSchema = channelFieldsSchema.extend({ id: z.number().int() });
export type Channel = z.infer<typeof channelSchema>;
