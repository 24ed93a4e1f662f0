import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type Evaluator } from '@heuristor/core';
import * as Comlink from 'comlink';
import { exportTable } from './exportTable';
import { type RenderRequest, type Rendered } from './protocol';
import { render } from './render';
import { RunStore } from './runStore';

const store = new RunStore();

const api = {
  put: (run: Run, values: Float64Array[], times: (Float64Array | null)[]): void =>
    store.put(run, values, times),
  append: (channelId: number, firstIndex: number, values: Float64Array): void =>
    store.append(channelId, firstIndex, values),
  drop: (runId: string): void => store.drop(runId),
  render: (request: RenderRequest): Rendered =>
    render(
      request.runIds.map((id) => store.evaluator(id)).filter((evaluator) => evaluator !== null),
      request,
    ),
  exportCsv: (runs: { id: string; name: string }[], workings: WorkingsDocument): string =>
    exportTable(
      runs
        .map(({ id, name }) => ({ name, evaluator: store.evaluator(id) }))
        .filter((run): run is { name: string; evaluator: Evaluator } => run.evaluator !== null),
      workings,
    ),
};

export type EvaluationWorker = typeof api;

Comlink.expose(api);
