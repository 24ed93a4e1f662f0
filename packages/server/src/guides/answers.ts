import {
  type AskedCheck,
  type Checked,
  type GuideItem,
  type GuideStanding,
  guideAnswerSchema,
  idSchema,
} from '@heuristor/contracts';
import { conversionOf, openedEvaluation, parseUnit, printedUnit } from '@heuristor/core';
import { type Transaction } from 'objection';
import { type Actor } from '../auth/actor';
import { type Evaluations } from '../evaluation/evaluations';
import { Failure } from '../failure';
import { checkedKinds } from '.';
import { type CheckedKind, type CheckableKind, type ResultValue, type Verdict } from './kind';
import { GuideCheckModel } from '../models/guideCheck';
import { InvestigationModel } from '../models/investigation';
import { PersonModel } from '../models/person';
import { documentOf, findDocument } from '../services/documents';
import { findInvestigation } from '../services/investigations';
import { findRuns } from '../services/runs';

/** An answer is kept so often at most once everybody may ask as often as he likes. */
const mostKept = 200;

const ownerOf = async (investigation: string): Promise<string> =>
  (await InvestigationModel.query().findById(investigation).throwIfNotFound()).ownerId;

/** The guide with what is right, whoever asks: only to check with. */
async function wholeGuide(investigation: string) {
  return documentOf(await ownerOf(investigation), investigation, 'guide');
}

const checksOf = (person: string, investigationId: string, transaction?: Transaction) =>
  GuideCheckModel.query(transaction).where({ investigationId, personId: person }).orderBy('id');

/** How often an answer may still be checked; null as often as one likes. */
const leftOf = (tries: number, isFree: boolean, made: readonly { answer: unknown }[]): number | null =>
  isFree ? null : Math.max(0, tries - different(made).size);

/** The same answer once more tells nothing new, and does not count. */
const different = (made: readonly { answer: unknown }[]): Set<string> =>
  new Set(made.map(({ answer }) => textOf(answer)));

/** An answer as a text that is the same for the same answer; how a result read when it was chosen is no part of it. */
function textOf(answer: unknown): string {
  const parsed = guideAnswerSchema.parse(answer);
  return JSON.stringify(parsed.kind === 'result' ? { ...parsed, then: '' } : parsed);
}

/** Whether somebody may ask as often as he likes: once what is right is released, and whoever wrote it. */
const mayAskFreely = (actor: Actor, owner: string, isReleased: boolean) => isReleased || actor.id === owner;

/** How somebody stands with the guide of an investigation. */
export async function standingWith(actor: Actor, investigation: string): Promise<GuideStanding> {
  const owner = await ownerOf(investigation);
  const guide = await wholeGuide(investigation);
  const made = actor.kind === 'screen' ? [] : await checksOf(actor.id, investigation);
  const isFree = mayAskFreely(actor, owner, guide?.isReleased === true);
  const checked = (guide?.items ?? []).flatMap((item) => {
    const own = made.filter((one) => one.item === item.id);
    const last = own.at(-1);
    if (last === undefined || !('tries' in item)) return [];
    const { isRight, says } = last;
    const answer = guideAnswerSchema.parse(last.answer);
    return [{ item: item.id, isRight, says, answer, left: leftOf(item.tries, isFree, own) }];
  });
  return { mayWrite: actor.id === owner, checked };
}

interface Parts {
  evaluations: Evaluations;
}

/** Checks an answer of somebody, and counts that he has asked. @throws Failure */
export async function checkAnswer(
  actor: Actor,
  investigation: string,
  { item: id, answer }: AskedCheck,
  { evaluations }: Parts,
): Promise<Checked> {
  if (actor.kind === 'screen') throw new Failure('not-allowed', 'A screen only shows what others answer.');
  const guide = await wholeGuide(investigation);
  const item = guide?.items.find((one) => one.id === id);
  if (guide === null || item === undefined)
    throw new Failure('not-found', 'There is no such question in the guide. It may have been removed.');
  const isFree = mayAskFreely(actor, await ownerOf(investigation), guide.isReleased);
  const tries = 'tries' in item ? item.tries : 0;
  if (!isFree && tries === 0)
    throw new Failure('not-allowed', 'Answers to this question are checked once your teacher releases them.');
  // Found before anything is counted: an answer that cannot be right or wrong is no try.
  const verdict = await verdictOf(item, answer, valueIn(actor, investigation, evaluations));
  return GuideCheckModel.transaction(async (transaction) => {
    // Two at the same moment count as two.
    await PersonModel.query(transaction).findById(actor.id).forUpdate();
    const made = await checksOf(actor.id, investigation, transaction).where({ item: id });
    const isKnown = different(made).has(textOf(answer));
    if (!isKnown && leftOf(tries, isFree, made) === 0)
      throw new Failure('too-many-requests', 'This was checked as often as your teacher allows.');
    if (made.length >= mostKept) await GuideCheckModel.query(transaction).deleteById(made[0].id);
    const { isRight, says } = verdict;
    await GuideCheckModel.query(transaction).insert({
      investigationId: investigation,
      personId: actor.id,
      item: id,
      answer,
      isRight,
      says,
    });
    return { isRight, says, left: leftOf(tries, isFree, [...made, { answer }]) };
  });
}

async function verdictOf(
  item: GuideItem,
  answer: AskedCheck['answer'],
  valueOf: ResultValue,
): Promise<Verdict> {
  if (!('tries' in item) || item.kind !== answer.kind)
    throw new Failure('invalid-request', 'This is no answer to that question.');
  if (item.right === null) throw new Failure('not-found', 'Nobody has said yet what is right here.');
  const kind = checkedKinds[item.kind] as unknown as CheckedKind<CheckableKind>;
  return kind.check(item as never, item.right as never, answer as never, valueOf);
}

/** Finds results of somebody's own workings. */
const valueIn =
  (actor: Actor, investigation: string, evaluations: Evaluations): ResultValue =>
  async ({ run: id, entry, key }, unit) => {
    const [run] = (await findRuns([idSchema.parse(id)])).filter(
      (found) => found.investigationId === investigation,
    );
    const gone = new Failure('not-found', 'The result that was chosen is there no more. Choose it again.');
    if (run === undefined) throw gone;
    const { document, owner } = await findDocument(actor, investigation, 'workings');
    if (!document.entries.some((one) => one.id === entry)) throw gone;
    const { plan } = await findInvestigation(investigation);
    const stored = await evaluations.of(run, plan, [{ owner, workings: document }], new Set([entry]));
    const found = openedEvaluation(stored).find((one) => one.entry === entry && one.field === key);
    if (found === undefined) throw gone;
    const expected = parseUnit(unit);
    try {
      const { factor, offset } = conversionOf(found.quantity.unit, expected);
      return factor * found.quantity.value + offset;
    } catch {
      throw new Failure(
        'invalid-request',
        `That result is in ${printedUnit(found.quantity.unit) || 'plain numbers'}; one in ${printedUnit(expected) || 'plain numbers'} is asked for.`,
      );
    }
  };
