import {
  type KeptDocument,
  type KeptKind,
  UnreadableDocument,
  keptKinds,
  readKept,
} from '@heuristor/contracts';
import { type Transaction } from 'objection';
import { type Actor } from '../auth/actor';
import { Failure } from '../failure';
import { DocumentModel } from '../models/document';
import { InvestigationModel } from '../models/investigation';

/** Reads something that was stored. @throws Failure that says what is wrong with it */
export function readable<T>(read: (stored: unknown) => T, stored: unknown): T {
  try {
    return read(stored);
  } catch (error) {
    if (error instanceof UnreadableDocument) throw new Failure('unreadable-document', error.message);
    throw error;
  }
}

/** A document as somebody sees it. */
export interface FoundDocument<K extends KeptKind> {
  document: KeptDocument<K>;
  version: number;
  owner: string;
}

/** Keeps a new document. */
export async function addDocument<K extends KeptKind>(
  { id: ownerId }: Pick<Actor, 'id'>,
  investigationId: string,
  kind: K,
  content: KeptDocument<K>,
  transaction: Transaction,
): Promise<void> {
  await DocumentModel.query(transaction).insert({ investigationId, ownerId, kind, content });
}

/** A document as somebody sees it: his own; a screen sees that of the owner, as all do where there is only one. @throws Failure */
export async function findDocument<K extends KeptKind>(
  actor: Actor,
  investigationId: string,
  kind: K,
): Promise<FoundDocument<K>> {
  const { content, version, ownerId } = await rowFor(actor, investigationId, kind);
  const document = readable((stored) => readKept(kind, stored), content);
  const { seenByOthers } = keptKinds[kind];
  const isOwn = ownerId === actor.id;
  return {
    document: isOwn || seenByOthers === undefined ? document : seenByOthers(document),
    version,
    owner: ownerId,
  };
}

/** A document of a person who has one in an investigation; null where there is none. @throws Failure where it cannot be read */
export async function documentOf<K extends KeptKind>(
  ownerId: string,
  investigationId: string,
  kind: K,
  transaction?: Transaction,
): Promise<KeptDocument<K> | null> {
  const found = await DocumentModel.query(transaction).where({ investigationId, ownerId, kind }).first();
  return found === undefined ? null : readable((stored) => readKept(kind, stored), found.content);
}

async function rowFor(actor: Actor, investigationId: string, kind: KeptKind): Promise<DocumentModel> {
  const of = (ownerId: string) => DocumentModel.query().where({ investigationId, ownerId, kind }).first();
  const begin = async (ownerId: string, content: unknown) => {
    // Two pages that open at once begin once.
    await DocumentModel.query()
      .insert({ investigationId, ownerId, kind, content })
      .onConflict(['investigationId', 'ownerId', 'kind'])
      .ignore();
    return of(ownerId).throwIfNotFound();
  };
  const isOnlyOne = keptKinds[kind].seenByOthers !== undefined;
  const own = actor.kind === 'screen' || isOnlyOne ? undefined : await of(actor.id);
  if (own !== undefined) return own;
  const { ownerId } = await InvestigationModel.query().findById(investigationId).throwIfNotFound();
  const whole = (await of(ownerId)) ?? (await begin(ownerId, keptKinds[kind].empty));
  // Who takes part begins with what stands there, and goes on alone.
  return actor.kind === 'participant' && !isOnlyOne ? begin(actor.id, whole.content) : whole;
}

/**
 * Stores a document that was made from `version`.
 * @returns the version that it has then
 * @throws Failure with the newer document where somebody was faster
 */
export async function writeDocument<K extends KeptKind>(
  actor: Actor,
  investigationId: string,
  kind: K,
  version: number,
  content: KeptDocument<K>,
): Promise<number> {
  if (actor.kind === 'screen') throw new Failure('not-allowed', 'A screen only shows what others work out.');
  if (actor.kind !== 'teacher' && keptKinds[kind].seenByOthers !== undefined)
    throw new Failure('not-allowed', `Only the teacher changes the ${keptKinds[kind].format.title}.`);
  const changed = await DocumentModel.query()
    .where({ investigationId, ownerId: actor.id, kind, version })
    .patch({ content, version: version + 1, updatedAt: new Date() });
  if (changed === 1) {
    await InvestigationModel.query().findById(investigationId).patch({ updatedAt: new Date() });
    return version + 1;
  }
  const current = await findDocument(actor, investigationId, kind);
  const { title, isMany } = keptKinds[kind].format;
  throw new Failure(
    'stale-document',
    `${isMany ? 'These' : 'This'} ${title} ${isMany ? 'were' : 'was'} changed on another screen meanwhile.`,
    { version: current.version, [kind]: current.document },
  );
}
