import {
  type Notebook,
  type PinContent,
  mostNotebookBytes,
  mostFilms,
  mostPhotographs,
  mostUpdateBytes,
  pinContentSchema,
} from '@heuristor/contracts';
import { type Transaction } from 'objection';
import * as Y from 'yjs';
import { type Actor, type Teacher } from '../auth/actor';
import { Failure } from '../failure';
import { InvestigationModel } from '../models/investigation';
import { NotebookModel } from '../models/notebook';
import { NotebookUpdateModel } from '../models/notebookUpdate';
import { FilmModel } from '../models/film';
import { PhotographModel } from '../models/photograph';
import { PinModel } from '../models/pin';
import { withIdsReplaced } from './replacedIds';

/** A notebook with so many rows of updates is worth joining. */
const rowsToJoin = 64;
const mostPins = 500;

const noteOf = (investigationId: string, ownerId: string, transaction?: Transaction) =>
  NotebookModel.query(transaction).where({ investigationId, ownerId }).first();

/** Whose notebook somebody sees: his own; a screen sees that of the owner. */
async function ownerFor(actor: Actor, investigationId: string): Promise<string> {
  if (actor.kind !== 'screen') return actor.id;
  return (await InvestigationModel.query().findById(investigationId).throwIfNotFound()).ownerId;
}

function mustWrite(actor: Actor): void {
  if (actor.kind === 'screen') throw new Failure('not-allowed', 'A screen only shows what others write.');
}

const joined = (updates: readonly NotebookUpdateModel[]): Uint8Array =>
  Y.mergeUpdates(updates.map(({ content }) => new Uint8Array(content)));

/**
 * A notebook as somebody sees it.
 * @param after the number of updates that he has already
 */
export async function findNotebook(actor: Actor, investigationId: string, after: number): Promise<Notebook> {
  const owner = await ownerFor(actor, investigationId);
  const mayWrite = actor.kind !== 'screen';
  const found = await noteOf(investigationId, owner);
  if (found === undefined) return { owner, at: 0, update: null, mayWrite };
  const rows = await NotebookUpdateModel.query()
    .where({ notebookId: found.id })
    .where('at', '>', after)
    .orderBy('at');
  // What was written since the first question is in the rows already.
  const at = Math.max(found.at, ...rows.map((row) => row.at));
  const update = rows.length === 0 ? null : Buffer.from(joined(rows)).toString('base64');
  return { owner, at, update, mayWrite };
}

/** The notebook of somebody, locked until the transaction ends; made where he has none yet. */
async function lockedFor(
  ownerId: string,
  investigationId: string,
  transaction: Transaction,
): Promise<NotebookModel> {
  // Two pages that write at once begin once.
  await NotebookModel.query(transaction)
    .insert({ investigationId, ownerId })
    .onConflict(['investigationId', 'ownerId'])
    .ignore();
  const query = NotebookModel.query(transaction).where({ investigationId, ownerId }).first().forUpdate();
  return query.throwIfNotFound();
}

/** @throws Failure where it is no update that everybody could apply */
function checkedUpdate(update: string): Buffer {
  const bytes = Buffer.from(update, 'base64');
  if (bytes.length > mostUpdateBytes)
    throw new Failure(
      'too-large',
      `That is too much at once: ${mostUpdateBytes >> 20} MB can be written in one go.`,
    );
  try {
    Y.applyUpdate(new Y.Doc(), bytes);
  } catch {
    throw new Failure('invalid-request', 'update: must be an update of Yjs, version 1, in base 64.');
  }
  return bytes;
}

/**
 * Stores what somebody has written.
 * @returns how far his notebook is then, and whether its rows are worth joining
 * @throws Failure
 */
export async function writeUpdate(
  actor: Actor,
  investigationId: string,
  update: string,
): Promise<{ at: number; notebook: string; isScattered: boolean }> {
  mustWrite(actor);
  const content = checkedUpdate(update);
  return NotebookModel.transaction(async (transaction) => {
    const { id, at, bytes } = await lockedFor(actor.id, investigationId, transaction);
    if (bytes + content.length > mostNotebookBytes)
      throw new Failure(
        'too-large',
        `This notebook is full: it has ${mostNotebookBytes >> 20} MB. Take something out that is long.`,
      );
    await NotebookUpdateModel.query(transaction).insert({ notebookId: id, at: at + 1, content });
    await NotebookModel.query(transaction)
      .findById(id)
      .patch({ at: at + 1, bytes: bytes + content.length });
    await InvestigationModel.query(transaction).findById(investigationId).patch({ updatedAt: new Date() });
    return { at: at + 1, notebook: id, isScattered: (at + 1) % rowsToJoin === 0 };
  });
}

/** Puts the rows of a notebook into one; what it says stays the same, and how far it is, too. */
export async function joinUpdates(notebookId: string): Promise<void> {
  await NotebookModel.transaction(async (transaction) => {
    const found = await NotebookModel.query(transaction).findById(notebookId).forUpdate();
    if (found === undefined) return;
    const rows = await NotebookUpdateModel.query(transaction).where({ notebookId }).orderBy('at');
    if (rows.length < 2) return;
    // Applied, and not merely merged: what was deleted leaves nothing but its place.
    const document = new Y.Doc();
    for (const { content } of rows) Y.applyUpdate(document, new Uint8Array(content));
    // An update that waits for another one that never came is kept as it is.
    const isWhole = document.store.pendingStructs === null && document.store.pendingDs === null;
    const content = Buffer.from(isWhole ? Y.encodeStateAsUpdate(document) : joined(rows));
    document.destroy();
    await NotebookUpdateModel.query(transaction).where({ notebookId }).delete();
    await NotebookUpdateModel.query(transaction).insert({ notebookId, at: found.at, content });
    await found.$query(transaction).patch({ bytes: content.length });
  });
}

/** Keeps what somebody has pinned; the same once more changes nothing. @throws Failure */
export async function addPin(
  actor: Actor,
  investigationId: string,
  { id, content }: { id: string; content: PinContent },
): Promise<void> {
  mustWrite(actor);
  await NotebookModel.transaction(async (transaction) => {
    const { id: notebookId } = await lockedFor(actor.id, investigationId, transaction);
    if ((await PinModel.query(transaction).where({ notebookId }).resultSize()) >= mostPins)
      throw new Failure('too-many-requests', `This notebook has ${mostPins} pictures already.`);
    await PinModel.query(transaction)
      .insert({ notebookId, id, content })
      .onConflict(['notebookId', 'id'])
      .ignore();
  });
}

/** What was pinned in the notebook that somebody sees. @throws Failure where there is nothing like that */
export async function findPin(actor: Actor, investigationId: string, id: string): Promise<PinContent> {
  const found = await noteOf(investigationId, await ownerFor(actor, investigationId));
  const pin = found && (await PinModel.query().findById([found.id, id]));
  if (!pin) throw new Failure('not-found', 'Nothing like that was pinned in this notebook.');
  const parsed = pinContentSchema.safeParse(pin.content);
  if (!parsed.success)
    throw new Failure('unreadable-document', 'What was pinned here was stored by another version.');
  return parsed.data;
}

/** Keeps a photograph. @throws Failure */
export async function addPhotograph(
  actor: Actor,
  investigationId: string,
  id: string,
  photograph: Pick<PhotographModel, 'content' | 'width' | 'height'>,
): Promise<void> {
  await NotebookModel.transaction(async (transaction) => {
    const { id: notebookId } = await lockedFor(actor.id, investigationId, transaction);
    await mustHaveRoom(notebookId, transaction);
    await PhotographModel.query(transaction)
      .insert({ notebookId, id, ...photograph })
      .onConflict(['notebookId', 'id'])
      .ignore();
  });
}

/** @throws Failure where somebody may not, or where there are too many */
export async function mayAddPhotograph(actor: Actor, investigationId: string): Promise<void> {
  mustWrite(actor);
  const found = await noteOf(investigationId, actor.id);
  if (found !== undefined) await mustHaveRoom(found.id);
}

async function mustHaveRoom(notebookId: string, transaction?: Transaction): Promise<void> {
  if ((await PhotographModel.query(transaction).where({ notebookId }).resultSize()) >= mostPhotographs)
    throw new Failure('too-many-requests', `This notebook has ${mostPhotographs} photographs already.`);
}

/** A photograph of the notebook that somebody sees, as JPEG. @throws Failure where there is none */
export async function findPhotograph(actor: Actor, investigationId: string, id: string): Promise<Buffer> {
  const found = await noteOf(investigationId, await ownerFor(actor, investigationId));
  const photograph = found && (await PhotographModel.query().findById([found.id, id]));
  if (!photograph) throw new Failure('not-found', 'There is no such photograph in this notebook.');
  return photograph.content;
}

/** Keeps a film. @throws Failure where somebody may not, or where there are too many */
export async function addFilm(
  actor: Actor,
  investigationId: string,
  id: string,
  content: Buffer,
): Promise<void> {
  mustWrite(actor);
  await NotebookModel.transaction(async (transaction) => {
    const { id: notebookId } = await lockedFor(actor.id, investigationId, transaction);
    await mustHaveRoomForFilm(notebookId, transaction);
    await FilmModel.query(transaction)
      .insert({ notebookId, id, content })
      .onConflict(['notebookId', 'id'])
      .ignore();
  });
}

/** @throws Failure where somebody may not, or where there are too many */
export async function mayAddFilm(actor: Actor, investigationId: string): Promise<void> {
  mustWrite(actor);
  const found = await noteOf(investigationId, actor.id);
  if (found !== undefined) await mustHaveRoomForFilm(found.id);
}

async function mustHaveRoomForFilm(notebookId: string, transaction?: Transaction): Promise<void> {
  if ((await FilmModel.query(transaction).where({ notebookId }).resultSize()) >= mostFilms)
    throw new Failure('too-many-requests', `This notebook has ${mostFilms} films already.`);
}

/** A film of the notebook that somebody sees, as MP4. @throws Failure where there is none */
export async function findFilm(actor: Actor, investigationId: string, id: string): Promise<Buffer> {
  const found = await noteOf(investigationId, await ownerFor(actor, investigationId));
  const film = found && (await FilmModel.query().findById([found.id, id]));
  if (!film) throw new Failure('not-found', 'There is no such film in this notebook.');
  return film.content;
}

/**
 * Somebody's notebook, with what is pinned in it, beside copies of the runs that it speaks of.
 * @param copies ids of copies, by those of their runs
 */
export async function copyNotebook(
  { id: ownerId }: Pick<Teacher, 'id'>,
  { from, to }: { from: string; to: string },
  copies: ReadonlyMap<string, string>,
  transaction: Transaction,
): Promise<void> {
  const found = await noteOf(from, ownerId, transaction);
  if (found === undefined) return;
  const rows = await NotebookUpdateModel.query(transaction).where({ notebookId: found.id }).orderBy('at');
  const pins = await PinModel.query(transaction).where({ notebookId: found.id }).select('id');
  const content = Buffer.from(
    rows.length === 0 ? [] : withIdsReplaced(joined(rows), ['blocks', 'answers'], copies),
  );
  const copy = await NotebookModel.query(transaction).insertAndFetch({
    investigationId: to,
    ownerId,
    at: Math.min(rows.length, 1),
    bytes: content.length,
  });
  if (rows.length > 0)
    await NotebookUpdateModel.query(transaction).insert({ notebookId: copy.id, at: 1, content });
  await PhotographModel.knex()
    .raw(
      `insert into photograph ("notebookId", id, content, width, height)
       select ?, id, content, width, height from photograph where "notebookId" = ?`,
      [copy.id, found.id],
    )
    .transacting(transaction);
  await FilmModel.knex()
    .raw(
      `insert into film ("notebookId", id, content) select ?, id, content from film where "notebookId" = ?`,
      [copy.id, found.id],
    )
    .transacting(transaction);
  // All at once they might not fit into memory.
  for (const { id } of pins) {
    const pin = await PinModel.query(transaction).findById([found.id, id]).throwIfNotFound();
    const text = JSON.stringify(pin.content);
    const renamed = text.replaceAll(
      /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g,
      (run) => copies.get(run) ?? run,
    );
    await PinModel.query(transaction).insert({
      notebookId: copy.id,
      id,
      content: JSON.parse(renamed) as PinContent,
    });
  }
}
