import { HeldRuns } from '@heuristor/evaluation';
import * as Comlink from 'comlink';
import { type RenderedRun } from './protocol';
import { type RunWorker } from './runWorker';
import { answersOf } from './questions';
import { renderRun } from '../drawing/renderRun';
import { LastSent } from '../drawing/lastSent';

const store = new HeldRuns();
const lastSent = new Map<string, LastSent>();

const api: RunWorker = {
  put(run, readings) {
    store.put(run, readings);
    lastSent.set(run.id, new LastSent());
  },
  append: (parts) => store.appendAll(parts),
  drop(runId) {
    store.drop(runId);
    lastSent.delete(runId);
  },
  render(runIds, request) {
    const rendered = runIds.flatMap((id): RenderedRun[] => {
      const evaluator = store.evaluator(id);
      return evaluator === null ? [] : [renderRun(evaluator, request, lastSent.get(id) ?? new LastSent())];
    });
    // Handed over rather than copied; curves belong to outcomes that are kept, so they are copied.
    const buffers = rendered.flatMap(({ traces, residuals, graphs }) =>
      [...Object.values(traces), ...Object.values(residuals), ...Object.values(graphs)].flatMap((part) =>
        part?.line == null ? [] : [part.line.x.buffer, part.line.y.buffer],
      ),
    );
    return Comlink.transfer(rendered, [...new Set(buffers)] as Transferable[]);
  },
  ask: (runIds, key, about) => answersOf((id) => store.held(id), runIds, key, about),
};

Comlink.expose(api);
