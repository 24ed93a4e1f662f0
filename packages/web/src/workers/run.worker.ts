import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  Refusal,
  type SeriesRef,
  budgetOf,
  drawnIn,
  fittedIn,
  jointFit,
  tryRelations,
} from '@heuristor/core';
import * as Comlink from 'comlink';
import { readAt, steppedFrom } from './atCursor';
import { outliersIn, readingsIn } from './chosenReadings';
import { exportColumns } from './exportColumns';
import { nearPoint, readingsWithin } from './nearPoint';
import { type RenderedRun, type RunWorker } from './protocol';
import { extentOf, renderRun } from './renderRun';
import { momentsIn } from './runEvents';
import { RunStore } from './runStore';
import { seenOf } from './seen';
import { tablePart, tableRow, tableShape, tableText } from './tableRows';
import { Told } from './told';

const store = new RunStore();
const told = new Map<string, Told>();

function tableOf<T>(
  runId: string,
  workings: WorkingsDocument,
  references: SeriesRef[],
  answer: (asked: Parameters<typeof tableShape>[0]) => T,
): T | null {
  const evaluator = store.evaluator(runId);
  return evaluator === null
    ? null
    : answer({ evaluator, recorded: store.recorded(runId), workings, references });
}

function there(runId: string): Evaluator {
  const evaluator = store.evaluator(runId);
  if (evaluator === null) throw new Refusal('This run is not here. Show it first.');
  return evaluator;
}

/** One result of an entry in a run. @throws Refusal where the entry has none there */
function resultOf(runId: string, workings: WorkingsDocument, entryId: string, key: string) {
  // What stands at rest is known; while a hand moves something, the whole sheet in full would hold it up.
  const asked = { moving: true, only: new Set([entryId]) };
  const outcome = store.evaluator(runId)?.evaluate(workings, asked).outcomes.get(entryId);
  if (outcome?.kind !== 'results') throw new Refusal('This entry has no result in this run.');
  return outcome.results.find((candidate) => candidate.key === key);
}

const api: RunWorker = {
  put(run, readings) {
    store.put(run, readings);
    told.set(run.id, new Told());
  },
  append: (parts) => store.appendAll(parts),
  drop(runId) {
    store.drop(runId);
    told.delete(runId);
  },
  seenIn: (runId) => store.channels(runId).map(({ channel, values }) => seenOf(channel, values)),
  lengths: (runId) => store.lengths(runId),
  extents: (runIds, workings, horizontal) =>
    runIds.map((id) => {
      const evaluator = store.evaluator(id);
      return evaluator === null ? null : extentOf(evaluator, workings, horizontal);
    }),
  render(runIds, request) {
    const rendered = runIds.flatMap((id): RenderedRun[] => {
      const evaluator = store.evaluator(id);
      return evaluator === null ? [] : [renderRun(evaluator, request, told.get(id) ?? new Told())];
    });
    // Handed over rather than copied; curves belong to outcomes that are kept, so they are copied.
    const buffers = rendered.flatMap(({ traces, residuals, graphs }) =>
      [...Object.values(traces), ...Object.values(residuals), ...Object.values(graphs)].flatMap((part) =>
        part?.line == null ? [] : [part.line.x.buffer, part.line.y.buffer],
      ),
    );
    return Comlink.transfer(rendered, [...new Set(buffers)] as Transferable[]);
  },
  cursor: (runIds, question) =>
    runIds.flatMap((id) => {
      const evaluator = store.evaluator(id);
      return evaluator === null ? [] : [readAt(evaluator, question)];
    }),
  stepped(runId, workings, reference, at, by) {
    const evaluator = store.evaluator(runId);
    return evaluator === null ? null : steppedFrom(evaluator, workings, reference, at, by);
  },
  events: (runIds, workings, event) =>
    runIds.flatMap((id) => {
      const evaluator = store.evaluator(id);
      return evaluator === null ? [] : [momentsIn(evaluator, workings, event)];
    }),
  readingsIn(runId, workings, reference, stretch) {
    const evaluator = store.evaluator(runId);
    return evaluator === null ? null : readingsIn(evaluator, workings, reference, stretch);
  },
  outliersIn(runId, workings, reference, stretch, rule) {
    const evaluator = store.evaluator(runId);
    return evaluator === null ? null : outliersIn(evaluator, workings, reference, stretch, rule);
  },
  budget(runId, workings, entryId, key) {
    const result = resultOf(runId, workings, entryId, key);
    return result === undefined ? [] : budgetOf(result.quantity);
  },
  working: (runId, workings, entryId, key) => resultOf(runId, workings, entryId, key)?.working?.() ?? null,
  tryRelations(runId, workings, asked) {
    const points = store.evaluator(runId)?.points(workings, asked);
    if (points === undefined) throw new Refusal('This run is not here. Show it first.');
    const relations = tryRelations(points, points.units);
    const tried = relations.find(({ found }) => found.kind === 'fitted')?.found;
    const n = points.x.length;
    const most = tried?.kind === 'fitted' ? tried.residuals.x.length : n;
    const places = Array.from({ length: most }, (_, i) => Math.round((i * (n - 1)) / Math.max(most - 1, 1)));
    return {
      x: Float64Array.from(places, (i) => points.x[i]),
      y: Float64Array.from(places, (i) => points.y[i]),
      relations,
    };
  },
  drawn: (runId, workings, entryId, count) => drawnIn(there(runId), workings, entryId, count),
  fitPoints(runId, workings, entryId) {
    const { points, units } = fittedIn(there(runId), workings, entryId);
    return { points, units };
  },
  jointFit: (runId, workings, entryId, sets, shared) =>
    jointFit(fittedIn(there(runId), workings, entryId).relation, sets, shared),
  nearPoint(runId, workings, question) {
    const evaluator = store.evaluator(runId);
    return evaluator === null ? null : nearPoint(evaluator, workings, question);
  },
  readingsWithin(runId, workings, outline) {
    const evaluator = store.evaluator(runId);
    return evaluator === null ? null : readingsWithin(evaluator, workings, outline);
  },
  tableShape: (runId, workings, references) => tableOf(runId, workings, references, tableShape),
  tablePart: (runId, workings, references, first, count) =>
    tableOf(runId, workings, references, (asked) => tablePart(asked, first, count)),
  tableRow: (runId, workings, references, at) =>
    tableOf(runId, workings, references, (asked) => tableRow(asked, at)),
  tableText: (runId, workings, references, first, past) =>
    tableOf(runId, workings, references, (asked) => tableText(asked, first, past)) ?? '',
  columns({ id, prefix }, workings) {
    const evaluator = store.evaluator(id);
    return evaluator === null ? [] : exportColumns(evaluator, store.recorded(id), prefix, workings);
  },
};

Comlink.expose(api);
