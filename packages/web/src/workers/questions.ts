import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type HampelRule,
  type JointSet,
  Refusal,
  type SeriesRef,
  budgetOf,
  drawnIn,
  fittedIn,
  jointFit,
} from '@heuristor/core';
import { type HeldRun, type OutcomesQuestion, outcomesOf } from '@heuristor/evaluation';
import { readAt, steppedFrom } from './atCursor';
import { outliersIn, readingsIn } from './chosenReadings';
import { exportColumns } from './exportColumns';
import { type OfferedQuestion, offeredOn } from './offered';
import { nearPoint, readingsWithin } from './nearPoint';
import { type CursorQuestion, type Outline, type PointQuestion, type AxisInterval } from './protocol';
import { extentOf } from '../drawing/renderRun';
import { type RunEvent, momentsIn } from './runEvents';
import { seenOf } from './seen';
import { tablePart, tableRow, tableShape, tableText } from './tableRows';
import { triedOn } from './triedRelations';

interface OnSheet {
  workings: WorkingsDocument;
}
type OfResult = OnSheet & { entryId: string; key: string };
type OfEntry = OnSheet & { entryId: string };
type OfSeries = OnSheet & { reference: SeriesRef };
type OfTable = OnSheet & { references: SeriesRef[] };

/** One result of an entry. @throws Refusal where the entry has none in this run */
function resultOf({ evaluator }: HeldRun, { workings, entryId, key }: OfResult) {
  // What stands at rest is known; while a hand moves something, the whole sheet in full would hold it up.
  const asked = { moving: true, only: new Set([entryId]) };
  const outcome = evaluator.evaluate(workings, asked).outcomes.get(entryId);
  if (outcome?.kind !== 'results') throw new Refusal('This entry has no result in this run.');
  return outcome.results.find((candidate) => candidate.key === key);
}

const table = (run: HeldRun, asked: OfTable) => ({
  ...asked,
  evaluator: run.evaluator,
  recorded: run.recorded(),
});

/**
 * What a run can be asked, whoever holds it; a line for each. An answer is plain enough to be sent. @throws Refusal, each of them, where
 * it says why there is no answer
 */
export const questions = {
  lengths: (run: HeldRun) => run.lengths(),
  /** What each channel showed. */
  seen: (run: HeldRun) => run.channels().map(({ channel, values }) => seenOf(channel, values)),
  /** Ends of the horizontal axis. */
  extent: ({ evaluator }: HeldRun, { workings, along }: OnSheet & { along: SeriesRef }) =>
    extentOf(evaluator, workings, along),
  cursor: ({ evaluator }: HeldRun, question: CursorQuestion) => readAt(evaluator, question),
  /** The place so many readings further on in a series; null where the run has no such series. */
  stepped: (
    { evaluator }: HeldRun,
    { workings, reference, at, by }: OfSeries & { at: number; by: number },
  ): number | null => steppedFrom(evaluator, workings, reference, at, by),
  /** When something happens, on the abscissa as the run lies now. */
  moments: ({ evaluator }: HeldRun, { workings, event }: OnSheet & { event: RunEvent }) =>
    momentsIn(evaluator, workings, event),
  readingsIn: (
    { evaluator }: HeldRun,
    { workings, reference, interval }: OfSeries & { interval: AxisInterval },
  ) => readingsIn(evaluator, workings, reference, interval),
  outliersIn: (
    { evaluator }: HeldRun,
    { workings, reference, interval, rule }: OfSeries & { interval: AxisInterval; rule: HampelRule },
  ) => outliersIn(evaluator, workings, reference, interval, rule),
  /** When the point was read that stands nearest to a place; null where none is near. */
  nearPoint: ({ evaluator }: HeldRun, { workings, question }: OnSheet & { question: PointQuestion }) =>
    nearPoint(evaluator, workings, question),
  readingsWithin: ({ evaluator }: HeldRun, { workings, outline }: OnSheet & { outline: Outline }) =>
    readingsWithin(evaluator, workings, outline),
  budget: (run: HeldRun, asked: OfResult) => {
    const result = resultOf(run, asked);
    return result === undefined ? [] : budgetOf(result.quantity);
  },
  /** How a result comes about; null where it is read off. */
  working: (run: HeldRun, asked: OfResult) => resultOf(run, asked)?.working?.() ?? null,
  /** Every relation on the readings of a region. */
  relations: (
    { evaluator }: HeldRun,
    { workings, ...asked }: OnSheet & { of: SeriesRef; against: SeriesRef; region: string | null },
  ) => triedOn(evaluator, workings, asked),
  /** What could be worked out on a region, with the values that would come of it. */
  offered: ({ evaluator }: HeldRun, asked: OfferedQuestion) => offeredOn(evaluator, asked),
  /** What sheets say of the run, in a form that can be stored and sent. */
  outcomes: ({ evaluator }: HeldRun, asked: OutcomesQuestion) => outcomesOf(evaluator, asked),
  /** What many draws say of a result by a formula. */
  drawn: ({ evaluator }: HeldRun, { workings, entryId, count }: OfEntry & { count: number }) =>
    drawnIn(evaluator, workings, entryId, count),
  /** The readings that a fit is of, and in which units they are. */
  fitPoints: ({ evaluator }: HeldRun, { workings, entryId }: OfEntry) => {
    const { points, units } = fittedIn(evaluator, workings, entryId);
    return { points, units };
  },
  /** The relation of an entry through the readings of several runs. */
  jointFit: (
    { evaluator }: HeldRun,
    { workings, entryId, sets, shared }: OfEntry & { sets: JointSet[]; shared: number[] },
  ) => jointFit(fittedIn(evaluator, workings, entryId).relation, sets, shared),
  tableShape: (run: HeldRun, asked: OfTable) => tableShape(table(run, asked)),
  tablePart: (run: HeldRun, { first, count, ...asked }: OfTable & { first: number; count: number }) =>
    tablePart(table(run, asked), first, count),
  /** The row nearest to a place on the abscissa. */
  tableRow: (run: HeldRun, { at, ...asked }: OfTable & { at: number }) => tableRow(table(run, asked), at),
  tableText: (run: HeldRun, { first, past, ...asked }: OfTable & { first: number; past: number }) =>
    tableText(table(run, asked), first, past),
  /** The run with its derived series, each heading beginning with a prefix. */
  columns: (run: HeldRun, { workings, prefix }: OnSheet & { prefix: string }) =>
    exportColumns(run.evaluator, run.recorded(), prefix, workings),
} as const satisfies Record<string, (run: HeldRun, about: never) => unknown>;

type Questions = typeof questions;
export type QuestionKey = keyof Questions;
/** What has to be told with a question; nothing with some. */
export type AboutOf<K extends QuestionKey> =
  Parameters<Questions[K]> extends [HeldRun, infer About] ? [about: About] : [];
export type AnswerOf<K extends QuestionKey> = ReturnType<Questions[K]>;

/** Puts one question to several runs; the answer of one that is not held is null. */
export const answersOf = (
  held: (runId: string) => HeldRun | null,
  runIds: readonly string[],
  key: QuestionKey,
  about: unknown,
): unknown[] =>
  runIds.map((id) => {
    const run = held(id);
    return run === null ? null : (questions[key] as (run: HeldRun, about: unknown) => unknown)(run, about);
  });
