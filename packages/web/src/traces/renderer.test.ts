import { emptyWorkings, usualPlan } from '@heuristor/contracts';
import { createStore } from 'zustand/vanilla';
import { type Documents, type View } from '../investigation/state';
import { type RunPool } from '../runs/pool';
import { InSight } from '../workings/inSight';
import { type RenderedRun } from '../workers/protocol';
import { usualView } from './pages/looking';
import { Renderer } from './renderer';

globalThis.requestAnimationFrame = (show) => {
  setTimeout(show, 0);
  return 0;
};
const turn = () => new Promise((resolve) => setTimeout(resolve, 0));

/** A bench without runs, whose workers answer when a test says so. */
function bench() {
  const answers: (() => void)[] = [];
  const pool = {
    askAll: () => Promise.resolve([]),
    render: () => new Promise<RenderedRun[]>((resolve) => answers.push(() => resolve([]))),
  } as unknown as RunPool;
  const documents = createStore(
    () => ({ workings: emptyWorkings, runs: [], plan: usualPlan }) as unknown as Documents,
  );
  const view = createStore<View>(() => usualView);
  const renderer = new Renderer(pool, documents, view, new InSight());
  const answer = async () => {
    for (let turns = 0; turns < 100 && answers.length === 0; turns++) await turn();
    answers.shift()?.();
    await turn();
  };
  return { renderer, answer, isOfAllReadings: () => renderer.picture.getState().isOfAllReadings };
}

test('a picture that was asked for before the last readings came is not one of all readings; the next one is', async () => {
  const { renderer, answer, isOfAllReadings } = bench();
  renderer.now();
  await answer();
  expect(isOfAllReadings()).toBe(true);
  renderer.now();
  await turn();
  renderer.readingsCame();
  expect(isOfAllReadings()).toBe(false);
  await answer();
  expect(isOfAllReadings()).toBe(false);
  await answer();
  expect(isOfAllReadings()).toBe(true);
  renderer.dispose();
});
