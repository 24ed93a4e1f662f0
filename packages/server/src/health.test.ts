import { DatabaseHealth } from './health';
import { until } from './testing/bench';
import { newDatabase } from './testing/testServer';
import { wayTo } from './testing/wayTo';

test('a database that hangs is away within two seconds, and back when it answers', async () => {
  const way = await wayTo(await newDatabase());
  const health = new DatabaseHealth(way.address);
  const heard: boolean[] = [];
  health.on('changed', (away) => heard.push(away));
  await new Promise((resolve) => setTimeout(resolve, 300));
  way.hang();
  const began = Date.now();
  await until(
    () => Promise.resolve(heard),
    ([away]) => away,
  );
  expect(Date.now() - began).toBeLessThan(2000);
  way.mend();
  await until(
    () => Promise.resolve(heard),
    ({ length }) => length === 2,
  );
  expect(heard).toEqual([true, false]);
  await health.close();
  way.close();
});
