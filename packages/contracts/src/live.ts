import { z } from 'zod';
import { deviceSchema, importSchema, runSchema } from './http';
import { controlActionSchema, keySchema, sceneSchema } from './link';
import { jobSchema } from './jobs';
import { keptKindKeys } from './kept';
import { planSchema } from './plan';
import { recorderStatusSchema } from './recorder';
import { spotStatusSchema } from './spots';

const diskStates = ['plenty', 'low', 'full'] as const;
/** How much room is left where things are stored. */
export type DiskState = (typeof diskStates)[number];

/** So many investigations can be open in one tab. */
export const mostWatched = 8;

/** What a screen says on the live stream, a socket.io connection at `/live`: which investigations and which scene it looks at. */
export const fromScreenSchema = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('watch'),
    investigations: z.array(z.uuid()).max(mostWatched),
    stage: keySchema.nullable(),
  }),
  z.object({ type: z.literal('control'), code: z.string().max(20), control: controlActionSchema }),
]);
export type FromScreen = z.infer<typeof fromScreenSchema>;

/** What the server says to a screen as a `say`; readings travel beside this as a `frame`. */
export const toScreenSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('devices'), devices: z.array(deviceSchema) }),
  z.object({ type: z.literal('run'), run: runSchema }),
  z.object({ type: z.literal('recorder'), investigation: z.string(), status: recorderStatusSchema }),
  z.object({ type: z.literal('spots'), investigation: z.string(), status: spotStatusSchema }),
  /** Something went wrong that nobody asked for just now. */
  z.object({ type: z.literal('fault'), investigation: z.string(), sentence: z.string() }),
  z.object({ type: z.literal('scene'), code: z.string(), values: sceneSchema.shape.values }),
  /** Its name and the plan of its next runs, as somebody has just changed them. */
  z.object({ type: z.literal('plan'), investigation: z.string(), name: z.string(), plan: planSchema }),
  /** What becomes of something that may wait, for whoever asked for it. */
  z.object({ type: z.literal('job'), job: jobSchema }),
  /** A document that somebody keeps over its runs was stored. */
  z.object({
    type: z.literal('document'),
    kind: z.enum(keptKindKeys),
    investigation: z.string(),
    owner: z.string(),
    version: z.number().int(),
  }),
  /** Something was written in a notebook; what it is, where it is short, otherwise it is to be fetched. */
  z.object({
    type: z.literal('notebook'),
    investigation: z.string(),
    owner: z.string(),
    at: z.number().int(),
    update: z.string().nullable(),
  }),
  /** Somebody has signed out: the stream ends, and there is nothing more to hear. */
  z.object({ type: z.literal('signed-out') }),
  /** Whether the database answers, and whether readings wait in memory for it. */
  z.object({
    type: z.literal('storage'),
    away: z.boolean(),
    waiting: z.boolean(),
    /** Whether there is room to store more, and how many bytes of it. */
    disk: z.enum(diskStates),
    free: z.number().nullable(),
  }),
  z.object({ type: z.literal('import'), import: importSchema }),
]);
export type ToScreen = z.infer<typeof toScreenSchema>;

/** Events of the live stream. */
export interface ServerToScreen {
  say(message: ToScreen): void;
  frame(bytes: Uint8Array): void;
}
export interface ScreenToServer {
  /** @param heard called when the server has taken note: what changes from then on is sent */
  say(message: FromScreen, heard?: () => void): void;
}
export const livePath = '/live';
