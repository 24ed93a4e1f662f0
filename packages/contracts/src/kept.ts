import { z } from 'zod';
import { type DocumentFormat, readDocument } from './documents';
import { type GuideDocument, emptyGuide, guideFormat, withoutRight } from './guide';
import { type TrialsDocument, emptyTrials, trialsFormat, trialsOverCopies } from './trials';
import { type WorkingsDocument, emptyWorkings, withRunsRenamed, workingsFormat } from './workings';

/** A kind of document that people keep over the runs of an investigation: each who works along has one of his own, or all read the owner's. */
interface KeptKindOf<T> {
  /** Its formats, with the steps from older ones. */
  format: DocumentFormat<T>;
  /** As it is before anybody has done anything. */
  empty: T;
  /** The same over copies of the runs that it speaks of, by the ids of both. */
  overCopies(document: T, copies: ReadonlyMap<string, string>): T;
  /** There is only one, of the owner of the investigation; as others see it. */
  seenByOthers?(document: T): T;
}

/** What each kind is. */
interface KeptDocuments {
  workings: WorkingsDocument;
  trials: TrialsDocument;
  guide: GuideDocument;
}

/** Every kind, one entry each; the name is that of its address and of its place in what is sent. */
export const keptKinds: { readonly [K in keyof KeptDocuments]: KeptKindOf<KeptDocuments[K]> } = {
  workings: { format: workingsFormat, empty: emptyWorkings, overCopies: withRunsRenamed },
  trials: { format: trialsFormat, empty: emptyTrials, overCopies: trialsOverCopies },
  guide: {
    format: guideFormat,
    empty: emptyGuide,
    overCopies: (guide) => guide,
    seenByOthers: withoutRight,
  },
};

export type KeptKind = keyof KeptDocuments;
export type KeptDocument<K extends KeptKind = KeptKind> = KeptDocuments[K];
export const keptKindKeys = Object.keys(keptKinds) as [KeptKind, ...KeptKind[]];

/** A stored document of any known format in today's form. @throws UnreadableDocument */
export const readKept = <K extends KeptKind>(kind: K, stored: unknown): KeptDocument<K> =>
  readDocument(keptKinds[kind].format, stored);

const version = z
  .number()
  .int()
  .min(0)
  .max(2 ** 31 - 1);

/** What is sent to be stored: a document, under the name of its kind, and the version from which it was made. */
export const keptPutSchema = <K extends KeptKind>(kind: K) =>
  z
    .object({ version, [kind]: keptKinds[kind].format.schema })
    .strict()
    .transform((sent) => ({
      version: sent.version as number,
      document: (sent as Record<string, unknown>)[kind] as KeptDocument<K>,
    }));

/** What is stored, as the answer to one who had an older version. */
export const storedKeptSchema = keptPutSchema;

/** The version under which a document was stored. */
export const keptVersionSchema = z.object({ version: z.number().int() });
