import { RenderLoop } from './renderLoop';

/** Work that ends when a test says so. */
function work(frame: () => Promise<void> = () => Promise.resolve()) {
  const ends: (() => void)[] = [];
  let running = 0;
  let most = 0;
  const loop = new RenderLoop(
    () =>
      new Promise<void>((resolve) => {
        running++;
        most = Math.max(most, running);
        ends.push(() => {
          running--;
          resolve();
        });
      }),
    frame,
  );
  return { loop, ends, most: () => most };
}
const turn = () => new Promise((resolve) => setTimeout(resolve, 0));

test('never two at once; wishes in between are one', async () => {
  const { loop, ends, most } = work();
  for (let i = 0; i < 10; i++) loop.now();
  expect(ends).toHaveLength(1);
  ends[0]();
  await turn();
  expect(ends).toHaveLength(2);
  ends[1]();
  await turn();
  expect(ends).toHaveLength(2);
  expect(most()).toBe(1);
});

test('readings that come live wait for each other; a hand does not wait', async () => {
  const { loop, ends } = work();
  for (let i = 0; i < 5; i++) loop.soon(10_000);
  expect(ends).toHaveLength(0);
  loop.now();
  expect(ends).toHaveLength(1);
  ends[0]();
  await turn();
  loop.soon(5);
  await new Promise((resolve) => setTimeout(resolve, 30));
  expect(ends).toHaveLength(2);
});

test('a page that is slow to draw is waited for, and a hand goes before it', async () => {
  const frames: (() => void)[] = [];
  const { loop, ends } = work(() => new Promise((resolve) => frames.push(resolve)));
  loop.soon(1);
  await new Promise((resolve) => setTimeout(resolve, 20));
  loop.soon(1);
  expect(frames).toHaveLength(1);
  expect(ends).toHaveLength(0);
  frames[0]();
  await turn();
  expect(ends).toHaveLength(1);
  ends[0]();
  await turn();
  loop.soon(1);
  await new Promise((resolve) => setTimeout(resolve, 20));
  loop.now();
  expect(ends).toHaveLength(2);
  ends[1]();
  frames[1]();
  await turn();
  // What the frame was waited for has been done already.
  expect(ends).toHaveLength(2);
});

test('nothing is done any more when the bench has closed', async () => {
  const { loop, ends } = work();
  loop.soon(1);
  loop.dispose();
  loop.now();
  await new Promise((resolve) => setTimeout(resolve, 20));
  expect(ends).toHaveLength(0);
});
