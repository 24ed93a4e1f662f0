/** @jest-environment node */
import pg from 'pg';
import { DatabaseHealth } from './health';
import { until } from './testing/bench';
import { newDatabase } from './testing/testServer';

test('a server that stands still itself does not take the database for away', async () => {
  const original = pg.Client.prototype.query as (...args: unknown[]) => unknown;
  let questions = 0;
  const standing = jest.spyOn(pg.Client.prototype, 'query').mockImplementation(function (
    this: pg.Client,
    ...args: unknown[]
  ) {
    const answer = original.apply(this, args);
    questions++;
    for (const until = Date.now() + 1500; Date.now() < until;);
    return answer;
  } as never);
  const health = new DatabaseHealth(await newDatabase());
  const heard: boolean[] = [];
  health.on('changed', (away) => heard.push(away));
  await until(
    () => Promise.resolve(questions),
    (count) => count >= 3,
    20,
  );
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect(heard).toEqual([]);
  standing.mockRestore();
  await health.close();
});
