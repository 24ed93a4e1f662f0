import { normalRandom } from '../random';
import { entryOf, regionEntry } from '../testing/truth/sheets';
import { channelOf } from '../testing/sheet';
import { type Entry } from './entries';
import { Evaluator, evaluate } from './evaluate';
import { type Outcome } from './outcome';

// What is said of windows, of motions whose truth is known. Coverage of what is corrected: testing/truth/windows.ts.

const omega = (2 * Math.PI) / 0.94;
const x = (value: (t: number) => number, noise = 0.0005, seed = 11) => {
  const normal = normalRandom(seed);
  return channelOf(
    'x',
    'm',
    Float64Array.from({ length: 300 }, (_, i) => value(i * 0.02) + noise * normal()),
    0.02,
  );
};
const swing = x((t) => 0.05 * Math.sin(omega * t));
const v = entryOf('derivative', 'v', { of: 'channel:x', windowPoints: 15 });
const a = entryOf('derivative', 'a', { of: 'entry:v', windowPoints: 15 });
const onA = { region: 'A' };

function said(entries: Entry[], channel = swing): Map<string, Outcome> {
  return evaluate({ entries }, { id: 'r', channels: [channel] }).outcomes;
}

function resultsOf(outcome: Outcome | undefined) {
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome;
}

const main = (outcome: Outcome | undefined) => {
  const { results, notes } = resultsOf(outcome);
  const found = results.find((one) => one.main) ?? results[0];
  return { value: found.quantity.value, u: found.quantity.standardUncertainty, notes: notes.join(' ') };
};

test('the slope of a against x is −ω², and the card says what the windows had made of it', () => {
  const slope = entryOf('slope', 'q', { of: 'entry:a', against: 'channel:x', ...onA });
  const { value, u, notes } = main(said([regionEntry('A', 'A', 0.7, 3.5), v, a, slope]).get('q'));
  // Two parabolas over 15 readings of 0.02 s pass a swing of 0.94 s by 0.72: −44.7 s⁻² would be −32.
  expect(Math.abs(value + omega ** 2)).toBeLessThan(3 * (u ?? 0));
  expect(notes).toMatch(/The windows of v and a flatten what is in this region: slope would be −3\d\.\d+ ± /);
  expect(notes).toContain('worked out through polynomials of degree');
});

test('a mean over whole swings is right, and nothing says that the window takes anything off it', () => {
  const mean = entryOf('statistics', 'q', { of: 'entry:v', ...onA });
  const { value, u, notes } = main(
    said([regionEntry('A', 'A', 0.47, 0.47 + 2 * 0.94 - 0.01), v, mean]).get('q'),
  );
  expect(Math.abs(value)).toBeLessThan(4 * (u ?? 0));
  expect(notes).not.toContain('flatten');
  expect(notes).toMatch(
    /takes \d+ % off the swings in this region, and noise hides how much of it this loses/,
  );
});

test('what is followed well is as the sheet says, without a word', () => {
  const even = x((t) => 0.3 + 0.2 * t + 0.1 * t * t);
  const slope = entryOf('slope', 'q', { of: 'entry:v', against: 't', ...onA });
  const outcomes = said([regionEntry('A', 'A', 0.7, 3.5), v, slope], even);
  expect(main(outcomes.get('q')).notes).not.toMatch(/window/i);
  const made = outcomes.get('v');
  expect(made?.kind === 'series' ? made.notes : null).toEqual([]);
});

test('beside the window stands what it takes off the run, and what would take less', () => {
  const made = said([v]).get('v');
  expect(made?.kind === 'series' ? made.notes[0] : '').toMatch(
    /^The window of v takes 1\d % off the motion of this run\. \d readings would take under 1 %\.$/,
  );
});

test('a kick within a wide window is brought back as far as ± says, or the sentence stands in the place of ±', () => {
  const kicked = x((t) => (t < 2 ? 0.4 * t : 0.8 - 0.3 * (t - 2)), 0.0001);
  const change = entryOf('changeAcross', 'q', { of: 'entry:v', ...onA });
  const changeIn = (start: number, end: number, windowPoints: number) =>
    main(said([regionEntry('A', 'A', start, end), { ...v, windowPoints } as Entry, change], kicked).get('q'));
  const near = changeIn(1.9, 2.04, 15);
  expect(Math.abs(near.value + 0.7)).toBeLessThan(2 * (near.u ?? 0));
  expect(near.notes).toContain('What that may still flatten is included in ±.');
  const within = changeIn(1.98, 2.02, 61);
  expect(within.u).toBeNull();
  expect(within.notes).toMatch(/no reliable ± of .* can be given/);
});

test('what changes across a kick is as ± says from windows that reach into it and from those that do not', () => {
  let [within, all] = [0, 0];
  for (let seed = 1; seed <= 12; seed++) {
    const kicked = x((t) => (t < 2 ? 0.4 * t : 0.8 - 0.3 * (t - 2)), 0.0001, seed);
    const change = entryOf('changeAcross', 'q', { of: 'entry:v', ...onA });
    for (const [start, end] of [
      [1.9, 2.04],
      [1.8, 2.1],
      [1.7, 2.2],
      [1, 3],
    ])
      for (const windowPoints of [7, 15]) {
        const entries = [regionEntry('A', 'A', start, end), { ...v, windowPoints } as Entry, change];
        const { value, u } = main(said(entries, kicked).get('q'));
        expect(Math.abs(value + 0.7)).toBeLessThan(4.5 * (u ?? 0));
        all++;
        if (Math.abs(value + 0.7) < (u ?? 0)) within++;
      }
  }
  expect(within / all).toBeGreaterThan(0.6);
});

test('where too many readings are missing to tell what is lost, the sentence stands in the place of ±', () => {
  const missing = [50, 52, 54].map((i) => i * 0.02);
  const gappy = x((t) =>
    missing.some((at) => Math.abs(at - t) < 1e-6) ? NaN : 0.05 * Math.sin((2 * Math.PI * t) / 0.4),
  );
  const mean = entryOf('statistics', 'q', { of: 'entry:v', ...onA });
  const narrow = { ...v, windowPoints: 7 } as Entry;
  const { u, notes } = main(said([regionEntry('A', 'A', 0.9, 2.38), narrow, mean], gappy).get('q'));
  expect(u).toBeNull();
  expect(notes).toMatch(/takes 1\d % off the swings in this region\. .* no reliable ± can be given/);
  expect(notes).not.toContain('± is');
});

test('while a hand moves the region, what had no ± at rest has none either', () => {
  const missing = [50, 52, 54].map((i) => i * 0.02);
  const gappy = x((t) =>
    missing.some((at) => Math.abs(at - t) < 1e-6) ? NaN : 0.05 * Math.sin((2 * Math.PI * t) / 0.4),
  );
  const mean = entryOf('statistics', 'q', { of: 'entry:v', ...onA });
  const narrow = { ...v, windowPoints: 7 } as Entry;
  const evaluator = new Evaluator({ id: 'r', channels: [gappy] });
  const read = (end: number, moving: boolean) =>
    main(
      evaluator
        .evaluate({ entries: [regionEntry('A', 'A', 0.9, end), narrow, mean] }, { moving })
        .outcomes.get('q'),
    ).u;
  expect(read(2.38, false)).toBeNull();
  expect(read(2.4, true)).toBeNull();
  expect(read(2.44, true)).toBeNull();
  // Only beyond what is missing there is something to tell.
  expect(read(2.4, false)).toBeNull();
});
