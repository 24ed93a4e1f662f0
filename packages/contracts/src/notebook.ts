import { z } from 'zod';
import { finite, idSchema, plainText } from './basics';

// A notebook is a document of Yjs (https://docs.yjs.dev): what is sent and stored are its updates, which can be applied in any order
// and more than once. What it holds is described in docs/notebook.md.

/** One update of a notebook at most, in bytes. */
export const mostUpdateBytes = 2 << 20;
/** All of a notebook at most, in bytes. */
export const mostNotebookBytes = 24 << 20;

const base64 = z.base64().max(Math.ceil(mostUpdateBytes / 3) * 4, 'is too long: an update has 2 MB at most');

/** What somebody has written, sent to be stored; one that is sent twice does no harm. */
export const newUpdateSchema = z.object({ update: base64 }).strict();
export type NewUpdate = z.infer<typeof newUpdateSchema>;

/** How far a notebook has come: each update that is stored raises it by one. */
const at = z.number().int().min(0);
export const storedUpdateSchema = z.object({ at });

/** A notebook as somebody sees it, or what has been written in it after a state that he has. */
export const notebookSchema = z.object({
  /** Whose it is. */
  owner: z.string(),
  at,
  /** One update that holds all that was asked for, in base 64; null where there is nothing. */
  update: z.base64().nullable(),
  /** Whether whoever asks may write in it. */
  mayWrite: z.boolean(),
});
export type Notebook = z.infer<typeof notebookSchema>;

const shortText = plainText.max(400);

/** A result as it stood when it was pinned. */
const pinnedResultSchema = z.object({
  run: idSchema.nullable(),
  entry: z.string().max(80),
  /** Its key among the results of its entry. */
  key: z.string().max(80),
  name: shortText,
  /** As it was written, with its uncertainty and its unit. */
  text: shortText,
});
export type PinnedResult = z.infer<typeof pinnedResultSchema>;

const sightSchema = z.object({ from: finite, to: finite });

/** How the bench or the trials were looked at, so that one can go there again. */
export const pinnedLookSchema = z.object({
  /** Of the bench: its page of traces; of the trials: their table. */
  page: z.string().max(80),
  sight: sightSchema.nullable(),
  scales: z.record(z.string().max(120), sightSchema),
  reach: z.enum(['shown', 'all']),
  withZero: z.boolean().nullable(),
  enlarged: z.string().max(120).nullable(),
  front: idSchema.nullable(),
  /** Where the cursors stood along the horizontal axis. */
  cursors: z.array(finite).max(2),
});
export type PinnedLook = z.infer<typeof pinnedLookSchema>;

/** What was seen on a page when it was pinned. It never changes. */
export const pinContentSchema = z
  .object({
    of: z.enum(['bench', 'trials']),
    /** When it was pinned, in ISO 8601. */
    made: z.iso.datetime(),
    /** What the page was called. */
    page: shortText,
    /** The picture as shapes (SVG). */
    picture: z.string().max(3 << 19, 'the picture is too large to be pinned: show less'),
    width: z.number().positive().max(4000),
    height: z.number().positive().max(4000),
    /** What the picture shows, in words. */
    says: plainText.max(4000),
    runs: z
      .array(
        z.object({
          id: idSchema,
          number: z.number().int(),
          name: shortText,
          group: shortText,
          /** What was typed of it, written out. */
          conditions: z.array(shortText).max(40),
        }),
      )
      .max(400),
    regions: z.array(z.object({ letter: shortText, name: shortText, text: shortText })).max(60),
    results: z.array(pinnedResultSchema).max(400),
    look: pinnedLookSchema,
  })
  .strict();
export type PinContent = z.infer<typeof pinContentSchema>;

/** What a page calls something that it has pinned. */
export const pinIdSchema = z
  .string()
  .regex(/^[0-9a-z]{12}$/, 'the id of a pin has twelve letters and digits');
export const newPinSchema = z.object({ id: pinIdSchema, content: pinContentSchema }).strict();

/** A photograph that is sent at most, in bytes, and how many a notebook holds. */
export const mostPhotographBytes = 40 << 20;
export const mostPhotographs = 60;
/** The longer side of a photograph as it is kept, in pixels. */
export const photographSide = 2000;

/** A photograph as it was kept. */
export const photographSchema = z.object({
  id: pinIdSchema,
  width: z.number().int(),
  height: z.number().int(),
});
export type Photograph = z.infer<typeof photographSchema>;

/** A film that is sent at most, in bytes and in seconds, and how many a notebook holds. */
export const mostFilmBytes = 24 << 20;
export const mostFilmSeconds = 60;
export const mostFilms = 6;
