import { type SampleFrame, frameKinds } from './frames';
import { LinkMemory } from './linkMemory';

/** A frame of two channels whose readings are their own numbers. */
const frameOf = (firstIndex: number, count: number, isTimed = false): SampleFrame => ({
  kind: frameKinds.link,
  subject: 3,
  firstIndex,
  channels: 2,
  values: Float64Array.from({ length: 2 * count }, (_, i) => firstIndex + Math.floor(i / 2)),
  times: isTimed ? Float64Array.from({ length: count }, (_, i) => (firstIndex + i) / 8) : null,
});

const numbersOf = (frames: readonly SampleFrame[]) =>
  frames.flatMap(({ firstIndex, values, channels }) => {
    const numbers = [...values].filter((_, i) => i % channels === 0);
    // The head of a frame says the same as its readings do.
    expect(numbers[0]).toBe(firstIndex);
    return numbers;
  });

const from = (first: number, end: number) => Array.from({ length: end - first }, (_, i) => first + i);

test('gives back what it kept, from an index in the middle of a frame on', () => {
  const memory = new LinkMemory();
  expect([memory.from, memory.since(0)]).toEqual([0, []]);
  memory.keep(frameOf(0, 10), 0);
  memory.keep(frameOf(10, 7), 0.5);
  for (const first of [0, 3, 9, 10, 16]) expect(numbersOf(memory.since(first))).toEqual(from(first, 17));
  expect(memory.since(17)).toEqual([]);
});

test('keeps ten seconds, and the last frame however old it is', () => {
  const memory = new LinkMemory();
  for (let second = 0; second < 60; second++) memory.keep(frameOf(second * 4, 4), second);
  expect(memory.from).toBe(49 * 4);
  expect(numbersOf(memory.since(0))).toEqual(from(49 * 4, 240));
  memory.keep(frameOf(240, 4), 1000);
  expect(numbersOf(memory.since(0))).toEqual(from(240, 244));
});

test('cuts a long frame, with its times, into messages of a moderate length', () => {
  const memory = new LinkMemory();
  memory.keep(frameOf(0, 10_000, true), 0);
  const frames = memory.since(5000);
  expect(frames.length).toBeGreaterThan(1);
  expect(numbersOf(frames)).toEqual(from(5000, 10_000));
  expect(frames.flatMap(({ times }) => [...(times ?? [])])).toEqual(from(5000, 10_000).map((n) => n / 8));
});

test('never holds more than a school’s machine has for it', () => {
  const memory = new LinkMemory();
  for (let i = 0; i < 40; i++) memory.keep(frameOf(i * 100_000, 100_000), 0);
  const kept = memory.since(0).reduce((sum, { values }) => sum + values.length, 0);
  expect(kept).toBeLessThanOrEqual(4_000_000);
  expect(kept).toBeGreaterThan(3_000_000);
});
