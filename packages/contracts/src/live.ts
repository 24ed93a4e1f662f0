import { z } from 'zod';
import { deviceSchema, runSchema } from './http';
import { controlActionSchema, sceneSchema } from './link';

/** What a screen says on the live stream. */
export const fromScreenSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('watch'), investigation: z.uuid().nullable(), stages: z.boolean() }),
  z.object({ type: z.literal('control'), code: z.string().max(20), control: controlActionSchema }),
]);
export type FromScreen = z.infer<typeof fromScreenSchema>;

/** What the server says to a screen; readings travel as binary frames beside this. */
export const toScreenSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('devices'), devices: z.array(deviceSchema) }),
  z.object({ type: z.literal('run'), run: runSchema }),
  z.object({ type: z.literal('scene'), code: z.string(), values: sceneSchema.shape.values }),
  z.object({ type: z.literal('workings'), investigation: z.string(), version: z.number().int() }),
  z.object({ type: z.literal('storage'), waiting: z.boolean() }),
]);
export type ToScreen = z.infer<typeof toScreenSchema>;
