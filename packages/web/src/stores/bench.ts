import { type Plan, type Run, frameKinds, investigationSchema, runSchema } from '@heuristor/contracts';
import { type SeriesRef } from '@heuristor/core';
import { create } from 'zustand';
import { getJson, getNumbers, postFile, request, sentenceOf } from '../api/client';
import { live } from '../api/live';
import { evaluation } from '../workers/evaluation';
import { type Rendered } from '../workers/protocol';
import { tell } from './notices';
import { keepSaving, noticeVersion, stopSaving } from './saving';
import { useWorkings, workingsHistory } from './workings';

interface BenchState {
  investigationId: string | null;
  name: string;
  plan: Plan;
  runs: Run[];
  /** Run whose results stand in front; null follows the newest run that is shown. */
  frontRunId: string | null;
  viewport: { from: number; to: number } | null;
  plotWidth: number;
  rendered: Rendered | null;
  /** Region whose handles and offers are shown. */
  selectedRegion: string | null;
  /** Series that offers beside the selected region speak of. */
  selectedSeries: SeriesRef | null;
  lastRemovedRun: Run | null;
  loading: 'loading' | 'ready' | 'missing';
}

const initial: BenchState = {
  investigationId: null,
  name: '',
  plan: { lengthSeconds: 8 },
  runs: [],
  frontRunId: null,
  viewport: null,
  plotWidth: 600,
  rendered: null,
  selectedRegion: null,
  selectedSeries: null,
  lastRemovedRun: null,
  loading: 'loading',
};

export const useBench = create<BenchState>(() => initial);

export const presentRuns = (runs: readonly Run[]): Run[] => runs.filter((run) => !run.removed);
export const shownRuns = (runs: readonly Run[]): Run[] => presentRuns(runs).filter((run) => run.shown);
export const recordingRun = (runs: readonly Run[]): Run | undefined =>
  runs.find((run) => run.state === 'recording');

/** The run in front: the chosen one while it is shown, else the newest that is. */
export function frontRun({ runs, frontRunId }: Pick<BenchState, 'runs' | 'frontRunId'>): Run | undefined {
  const shown = shownRuns(runs);
  return shown.find(({ id }) => id === frontRunId) ?? shown[shown.length - 1];
}

const held = new Map<string, Promise<void>>();

/** Fetches the readings of a run into the worker, once. */
function hold(run: Run): Promise<void> {
  let loading = held.get(run.id);
  if (loading === undefined) {
    loading = (async () => {
      const values = await Promise.all(run.channels.map(({ id }) => getNumbers(`/channels/${id}/values`)));
      const times = await Promise.all(
        run.channels.map(({ id, interval }) =>
          interval === null ? getNumbers(`/channels/${id}/times`) : null,
        ),
      );
      await evaluation.put(run, values, times);
      for (const frame of early.get(run.id) ?? []) await evaluation.append(...frame);
      early.delete(run.id);
    })();
    held.set(run.id, loading);
    loading.then(requestRender, (error: unknown) => {
      held.delete(run.id);
      tell({ kind: 'fault', text: `${run.name} could not be read. ${sentenceOf(error)}` });
    });
  }
  return loading;
}

/** Live readings that came while the stored ones were still on their way. */
const early = new Map<string, [channelId: number, firstIndex: number, values: Float64Array][]>();

function holdShown(): void {
  for (const run of shownRuns(useBench.getState().runs)) {
    if (!held.has(run.id)) early.set(run.id, []);
    void hold(run).catch(() => undefined);
  }
}

/** Opens an investigation on the bench. */
export async function openBench(id: string): Promise<void> {
  if (useBench.getState().investigationId !== id)
    useBench.setState({ ...initial, plotWidth: useBench.getState().plotWidth });
  live.watch({ investigation: id });
  try {
    const found = await getJson(`/investigations/${id}`, investigationSchema);
    keepSaving(id, found.workings, found.workingsVersion);
    useBench.setState({
      investigationId: id,
      name: found.name,
      plan: found.plan,
      runs: found.runs,
      loading: 'ready',
    });
    holdShown();
    requestRender();
  } catch (error) {
    useBench.setState({ loading: 'missing' });
    tell({ kind: 'fault', text: sentenceOf(error) });
  }
}

export function leaveBench(): void {
  void stopSaving();
  live.watch({ investigation: null });
  for (const id of held.keys()) void evaluation.drop(id);
  held.clear();
  useBench.setState(initial);
}

export function takeRun(run: Run): void {
  const { runs, investigationId } = useBench.getState();
  if (run.investigationId !== investigationId) return;
  const known = runs.some(({ id }) => id === run.id);
  useBench.setState({
    runs: known ? runs.map((other) => (other.id === run.id ? run : other)) : [...runs, run],
    ...(known || !run.shown ? {} : { frontRunId: run.id }),
  });
  holdShown();
  requestRender();
}

let rendering = false;
let again = false;

/** Asks the worker for new numbers and lines; while it works, further wishes are gathered into one. */
export function requestRender(): void {
  if (rendering) {
    again = true;
    return;
  }
  rendering = true;
  const { runs, viewport, plotWidth, investigationId } = useBench.getState();
  const { workings } = useWorkings.getState();
  evaluation
    .render({ workings, runIds: shownRuns(runs).map(({ id }) => id), viewport, width: Math.round(plotWidth) })
    .then((rendered) => {
      if (useBench.getState().investigationId === investigationId) useBench.setState({ rendered });
    })
    .catch((error: unknown) =>
      tell({ kind: 'fault', text: `The workings could not be evaluated: ${String(error)}` }),
    )
    .finally(() => {
      rendering = false;
      if (!again) return;
      again = false;
      requestAnimationFrame(requestRender);
    });
}

useWorkings.subscribe(() => {
  useBench.setState({ lastRemovedRun: null });
  requestRender();
});
useBench.subscribe((now, before) => {
  if (now.viewport !== before.viewport || now.plotWidth !== before.plotWidth) requestRender();
});

live.onMessage((message) => {
  if (message.type === 'run') takeRun(message.run);
  if (message.type === 'workings') void noticeVersion(message.investigation, message.version);
});
live.onFrame(({ kind, subject, firstIndex, values }) => {
  if (kind !== frameKinds.run) return;
  const run = useBench.getState().runs.find(({ channels }) => channels.some(({ id }) => id === subject));
  if (run === undefined) return;
  const waiting = early.get(run.id);
  if (waiting !== undefined) waiting.push([subject, firstIndex, values]);
  else void evaluation.append(subject, firstIndex, values).then(renderSoon);
});
let wasOffline = false;
live.onState((online) => {
  const { investigationId } = useBench.getState();
  if (!online) wasOffline = true;
  else if (wasOffline && investigationId !== null) {
    // What came while the stream was down is in the database.
    wasOffline = false;
    held.clear();
    void openBench(investigationId);
  }
});

const liveRenderMilliseconds = 40;
let soon: ReturnType<typeof setTimeout> | undefined;

/** Live readings are drawn at 25 pictures a second at most; the page stays free for the hand. */
function renderSoon(): void {
  soon ??= setTimeout(() => {
    soon = undefined;
    requestRender();
  }, liveRenderMilliseconds);
}

/** Does something on the server; a refusal becomes a notice. */
export async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work();
  } catch (error) {
    tell({ kind: 'fault', text: sentenceOf(error) });
    return undefined;
  }
}

const here = () => `/investigations/${useBench.getState().investigationId}`;

export async function toggleRecording(): Promise<void> {
  const running = recordingRun(useBench.getState().runs) !== undefined;
  await attempt(async () => {
    takeRun(runSchema.parse(await request(running ? 'DELETE' : 'POST', `${here()}/recording`)));
    if (!running) useBench.setState({ viewport: null });
  });
}

export const changeRun = (
  id: string,
  patch: { name?: string; shown?: boolean; style?: number },
): Promise<void | undefined> =>
  attempt(async () => takeRun(runSchema.parse(await request('PATCH', `/runs/${id}`, patch))));

export async function removeRun(run: Run): Promise<void> {
  await attempt(async () => {
    takeRun(runSchema.parse(await request('DELETE', `/runs/${run.id}`)));
    useBench.setState({ lastRemovedRun: run });
    tell({
      kind: 'news',
      text: `“${run.name}” is removed.`,
      action: { label: 'Undo', run: () => void restoreRun(run.id) },
    });
  });
}

export async function restoreRun(id: string): Promise<void> {
  await attempt(async () => takeRun(runSchema.parse(await request('POST', `/runs/${id}/restore`))));
  useBench.setState({ lastRemovedRun: null });
}

export async function importFile(file: File): Promise<void> {
  const name = file.name.replace(/\.[^.]*$/, '');
  await attempt(async () =>
    takeRun(runSchema.parse(await postFile(`${here()}/imports?name=${encodeURIComponent(name)}`, file))),
  );
}

export async function changePlan(plan: Plan): Promise<void> {
  const before = useBench.getState().plan;
  useBench.setState({ plan });
  const done = await attempt(() => request('PATCH', here(), { plan }));
  if (done === undefined) useBench.setState({ plan: before });
}

/** Takes the last step back: the removal of a run if that came last, else the last change of the workings. */
export function undo(): void {
  const { lastRemovedRun } = useBench.getState();
  if (lastRemovedRun !== null) void restoreRun(lastRemovedRun.id);
  else workingsHistory.getState().undo();
}

export const redo = (): void => workingsHistory.getState().redo();
