import { type EntryKindKey, type Field, kindOf } from '@heuristor/core';

/** Whether a kind has fields of a type. */
export const hasField = (kind: EntryKindKey, wanted: Field['type']): boolean =>
  Object.values(kindOf(kind).fields).some(({ type }) => type === wanted);

/** Kinds whose fields are filled in after they are made: what they are to speak of is not known before. */
export const isFilledIn = (kind: EntryKindKey): boolean =>
  hasField(kind, 'result') || hasField(kind, 'formula') || kind === 'words' || kind === 'constant';
