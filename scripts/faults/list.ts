/** A fault that is put into the sources to see whether the tests notice it. */
export interface SeededFault {
  /** What a person would meet. */
  what: string;
  file: string;
  /** Stands in the file once. */
  find: string;
  replace: string;
  /** Parts of the paths of the tests that have to notice it. */
  tests: string[];
}

const core = 'packages/core/src';
const web = 'packages/web/src';
const server = 'packages/server/src';

export const seededFaults: readonly SeededFault[] = [
  // The computation.
  {
    what: 'an area counts half a reading too much at each end',
    file: `${core}/calculus/area.ts`,
    find: 'value = sampling.interval * (inside - (values[low] + values[high]) / 2);',
    replace: 'value = sampling.interval * inside;',
    tests: ['core/src/calculus/area'],
  },
  {
    what: 'a standard deviation divides by n',
    file: `${core}/statistics/describe.ts`,
    find: '(squares - (rest * rest) / count) / (count - 1)',
    replace: '(squares - (rest * rest) / count) / count',
    tests: ['core/src/statistics'],
  },
  {
    what: 'two results of the same readings count as independent',
    file: `${core}/results/combined.ts`,
    find: 'known === undefined ? scaledSpan(effect, derivative) : addSpans(known.effect, effect, derivative)',
    replace: 'scaledSpan(effect, derivative)',
    tests: ['core/src/results/combined', 'core/src/workings/combination'],
  },
  {
    what: 'an uncertainty is written with one digit',
    file: `${core}/results/rounding.ts`,
    find: 'lastPlace(standardUncertainty, 2)',
    replace: 'lastPlace(standardUncertainty, 1)',
    tests: ['core/src/results/rounding'],
  },
  {
    what: 'a decimal comma is dropped',
    file: `${core}/tables/number.ts`,
    find: ".replace(',', '.')",
    replace: ".replace(',', '')",
    tests: ['core/src/tables/tables'],
  },
  {
    what: 'units are converted the wrong way round',
    file: `${core}/units/conversion.ts`,
    find: 'return a.scale / b.scale;',
    replace: 'return b.scale / a.scale;',
    tests: ['core/src/units/unit'],
  },
  {
    what: 'outliers are found a third too eagerly',
    file: `${core}/statistics/hampel.ts`,
    find: 'export const madScale = 1.4826;',
    replace: 'export const madScale = 1;',
    tests: ['core/src/statistics'],
  },
  {
    what: 'amplitudes of a spectrum are halved',
    file: `${core}/spectrum/amplitudes.ts`,
    find: '(k === 0 || k === half ? 1 : 2)',
    replace: '(k === 0 || k === half ? 1 : 1)',
    tests: ['core/src/spectrum'],
  },
  {
    what: 'a curve that is drawn thinned loses its spikes',
    file: `${core}/series/thinning.ts`,
    find: 'if (low <= high) push((left + right) / 2, low, high);',
    replace: 'if (low <= high) push((left + right) / 2, (low + high) / 2, (low + high) / 2);',
    tests: ['core/src/series/thinning'],
  },
  {
    what: 'a curve that is drawn thinned is joined across a gap',
    file: `${core}/series/thinning.ts`,
    find: 'if (missing) push(right, NaN, NaN);',
    replace: '',
    tests: ['core/src/series/thinning'],
  },
  {
    what: 'Student’s t is left out of ±',
    file: `${core}/results/quantity.ts`,
    find: 'coverageFactor(degreesOfFreedom);',
    replace: '1 + 0 * coverageFactor(degreesOfFreedom);',
    tests: ['core/src/workings/coverage'],
  },
  {
    what: 'the speed of a flag is upside down',
    file: `${core}/timing/flag.ts`,
    find: 'value: length / duration,',
    replace: 'value: duration / length,',
    tests: ['core/src/timing/timing'],
  },
  {
    what: 'a second derivative has the unit of the first',
    file: `${core}/calculus/derivative.ts`,
    find: 'unit: order === 1 ? first : divideUnits(first, series.timeUnit),',
    replace: 'unit: order === 1 ? first : first,',
    tests: ['core/src/calculus', 'core/src/workings/derived'],
  },
  // What a page does by itself.
  {
    what: 'a pan goes the wrong way',
    file: `${web}/traces/hand/dragging.ts`,
    find: '(press.at.x - to.x) / scene.width',
    replace: '(to.x - press.at.x) / scene.width',
    tests: ['web/src/traces/hand'],
  },
  {
    what: 'what was taken back cannot be done again',
    file: `${web}/investigation/history.ts`,
    find: 'undone.push(step);\n    this.tell();\n    // What',
    replace: 'this.tell();\n    // What',
    tests: ['web/src/investigation/history'],
  },
  {
    what: 'ticks stand at numbers that are not round',
    file: `${web}/traces/axes/axisTicks.ts`,
    find: ': ticks(from, to, Math.max(about, 1));',
    replace: ': ticks(from, to, Math.max(about, 1)).map((value) => value + (to - from) / 7);',
    tests: ['web/src/traces/axes'],
  },
  {
    what: 'leaving the bench forgets what is not stored yet',
    file: `${web}/investigation/saver.ts`,
    find: "this.tell({ kind: 'time' });\n  }\n\n  private carryOut",
    replace: '}\n\n  private carryOut',
    tests: ['web/src/investigation/saver'],
  },
  {
    what: 'a device forgets at once what it should send again',
    file: 'packages/contracts/src/linkMemory.ts',
    find: 'now - this.kept[drop].at > keptAgainSeconds',
    replace: 'now - this.kept[drop].at > 0.01 * keptAgainSeconds',
    tests: ['contracts/src/linkMemory'],
  },
  // The server.
  {
    what: 'a sign-in link works twice',
    file: `${server}/auth/signIn.ts`,
    find: "      .whereNull('usedAt')\n",
    replace: '',
    tests: ['server/src/api.test'],
  },
  {
    what: 'a gap in a run is not marked',
    file: `${server}/recorder/step.ts`,
    find: 'if (taken.gap !== null) {',
    replace: 'if (taken.gap !== null && taken.gap.from > 1e9) {',
    tests: ['server/src/recorder'],
  },
  {
    what: 'a sheet that was changed elsewhere is written over',
    file: `${server}/services/documents.ts`,
    find: '.where({ investigationId, ownerId: actor.id, kind, version })',
    replace: '.where({ investigationId, ownerId: actor.id, kind })',
    tests: ['server/src/api.test'],
  },
  {
    what: 'readings from the future are believed',
    file: `${server}/link/streamClock.ts`,
    find: 'if (isEarly && from - this.reached > earlySeconds) return impossible;',
    replace: '',
    tests: ['server/src/link'],
  },
  {
    what: 'a run does not wait for what a device kept while its link was broken',
    file: `${server}/recorder/step.ts`,
    find: 'awaitedUntil: event.sendsAgain ? secondsAt(state, event.now) + longestAwaySeconds : null,',
    replace: 'awaitedUntil: null,',
    tests: ['server/src/recorder', 'server/src/linkBreaks'],
  },
  {
    what: 'a job of the queue is tried again for ever',
    file: `${server}/queue/queue.ts`,
    find: 'if (job.attempts >= kind.attempts) {',
    replace: 'if (job.attempts >= 1e9) {',
    tests: ['server/src/queue'],
  },
  {
    what: 'a sensor has no noise',
    file: 'packages/stand-ins/src/devices/sensor.ts',
    find: 'const noise = range.noise * (flaws.noiseFactor ?? 1);',
    replace: 'const noise = 0 * range.noise * (flaws.noiseFactor ?? 1);',
    tests: ['stand-ins/src'],
  },
  // What only the whole shows.
  {
    what: 'the first menu of a page opens in a corner',
    file: `${web}/ui/FixedMenu.tsx`,
    find: "strategy: 'fixed' as const,",
    replace: "strategy: 'absolute' as const,",
    tests: ['e2e/crawler'],
  },
  {
    what: 'the axis of a saved picture begins at another number than what is drawn over it',
    file: `${web}/files/picture/draw.ts`,
    find: 'across: { low: frame.sight.from, high: frame.sight.to,',
    replace: 'across: { low: frame.sight.from + 1, high: frame.sight.to + 1,',
    tests: ['e2e/numbers'],
  },
  {
    what: 'the space bar records nothing',
    file: `${web}/investigation/BenchPage.tsx`,
    find: "if (event.code !== 'Space' || takesKeys(event.target)) return;",
    replace: "if (event.code !== 'Enter' || takesKeys(event.target)) return;",
    tests: ['e2e/runs'],
  },
  {
    what: 'what is typed on the page is not sent when the page is closed',
    file: `${web}/investigation/saver.ts`,
    find: "return state.phase === 'dirty' || state.phase === 'offline' || state.phase === 'refused'",
    replace: "return state.phase === 'refused'",
    tests: ['e2e/kept', 'web/src/investigation'],
  },
  {
    what: 'a minus on the screen is lost',
    file: `${web}/ui/numberText.ts`,
    find: "written(text.replace('-', '−'))",
    replace: "written(text.replace('-', ''))",
    tests: ['web/src/ui', 'web/src/traces'],
  },
];
