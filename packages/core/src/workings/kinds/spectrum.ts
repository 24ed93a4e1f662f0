import { log, square } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { Refusal } from '../../refusal';
import { exactly } from '../../results/quantity';
import { intervalOf, timeAt } from '../../series/sampling';
import { type Series } from '../../series/series';
import { describe } from '../../statistics/describe';
import { amplitudeSpectrum } from '../../spectrum/amplitudes';
import { type Tone, toneAt } from '../../spectrum/tone';
import { toneOnLine } from '../../spectrum/toneOnLine';
import { type SpectrumWindow, windowWeight } from '../../spectrum/windows';
import { type Unit, divideUnits, one, parseUnit, printedUnit, sameUnit } from '../../units/unit';
import { choiceField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { type NamedResult } from '../outcome';
import { leftOutNotes, reachNote, select } from '../selection';
import { type Selection } from '../selected';
import { weighed } from '../weighed';

const fewest = 8;
/** With zeros added, a spectrum is taken of about so many numbers at most: more would not be told apart on a screen. */
const mostNumbers = 2 ** 21;
/** More of the readings than this may not be missing: what is put in their places would make the spectrum. */
const mostMissing = 0.1;
/** Times that go off their even steps by more than this share are read as uneven. */
const unevenness = 0.01;
/** A peak is looked for from so many periods in the interval on: slower ones are no swing but a drift. */
const fewestPeriods = 1.5;

/**
 * The amplitude spectrum of an interval, and its highest peak. Uncertainties of the peak are what the noise of the readings does
 * to it; that a swing dies away or is none is not in them.
 */
export const spectrum = defineKind({
  kind: 'spectrum',
  title: 'spectrum',
  yields: 'results',
  draws: 'graph',
  offered: 'region',
  offers: [{ title: 'spectrum', preset: {} }],
  fields: {
    of: seriesField(),
    region: regionField(),
    window: choiceField('Window', [
      { key: 'hann', title: 'Hann: peaks are well separated' },
      { key: 'none', title: 'none: narrower peaks, with side lobes' },
    ]),
    padding: choiceField('Zeros added', [
      { key: '4', title: 'to 4 times the length' },
      { key: '1', title: 'to the next power of two' },
      { key: '2', title: 'to 2 times the length' },
      { key: '8', title: 'to 8 times the length' },
    ]),
  },
  sentence: ({ of }, nameOf) => `spectrum of ${nameOf(of)}`,
  evaluate({ of, region: regionId, window, padding }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    if (series.sampling.kind === 'events')
      throw new Refusal('Edges of a gate have no spectrum. Choose what was read at a rate.');
    const selection = select(context, series, 't', region);
    const count = selection.indices.length;
    if (count < fewest)
      throw new Refusal(`A spectrum needs ${fewest} readings; the region holds ${count}. Make it longer.`);
    const { values, interval, bridged, isUneven } = evenly(series, selection);
    const duration = values.length * interval;
    const unit = frequencyUnit(series.timeUnit);
    const found = peakIn(series, selection, window, { values, interval }, unit);
    const { peak, drift } = found;
    let mean = 0;
    for (let i = 0; i < count; i++) mean += selection.y[i] / count;
    const { x: times } = selection;
    const possible = Math.max(Math.floor(mostNumbers / values.length), 1);
    const padded = Math.min(Number(padding), possible);
    const { step, amplitudes } = amplitudeSpectrum(
      values.map((value, i) => value - (drift?.lineAt(times[0] + i * interval) ?? mean)),
      window,
      padded,
    );
    const x = Float64Array.from(amplitudes, (_, k) => (k * step) / interval);
    return {
      kind: 'results',
      results: [
        ...peak,
        {
          key: 'resolution',
          name: 'resolution',
          quantity: exactly(1 / duration, unit),
          roundTo: 0.01 / duration,
          main: peak.length === 0,
        },
      ],
      notes: [
        ...(peak.length > 0
          ? []
          : [
              'No peak stands out of the noise, or fewer than one and a half periods of it fit in the region.',
            ]),
        `${window === 'hann' ? 'Hann’s window' : 'No window'}, zeros added to ${
          padded === 1 ? 'the next power of two' : `${padded} times the length or more`
        }${padded < Number(padding) ? ', the most that so many readings allow' : ''}; amplitudes${
          series.unit.length === 0 ? '' : ` in ${printedUnit(series.unit)}`
        }, not effective values. Two peaks closer than the resolution are not told apart.`,
        ...(drift === null
          ? []
          : [
              `A straight drift of ${Number(drift.slope.toPrecision(3)).toString().replace('-', '−')} ${printedUnit(divideUnits(series.unit, series.timeUnit))} was subtracted first.`,
            ]),
        ...(isUneven
          ? ['The times are uneven: for the drawn spectrum readings were put on even steps.']
          : []),
        ...(bridged > 0
          ? [
              `${bridged} missing ${bridged === 1 ? 'reading was' : 'readings were'} bridged by a straight line.`,
            ]
          : []),
        ...leftOutNotes(selection, count),
        ...reachNote(series, region),
      ],
      fitted: null,
      graph: {
        horizontal: { symbol: 'f', quantity: 'frequency', unit },
        vertical: {
          symbol: `amplitude of ${series.symbol}`,
          quantity: series.quantity,
          unit: intervalUnit(series.unit),
        },
        shape: 'line',
        x,
        y: amplitudes,
        usual: { from: 0, to: reachOf(x, amplitudes) },
        marks: peak
          .filter(({ key }) => key === 'frequency')
          .map(({ quantity }) => ({
            at: quantity.value,
            half: 0,
            text: `${Number(quantity.value.toPrecision(4))} ${printedUnit(unit)}`.trim(),
          })),
      },
    };
  },
});

const frequencyUnit = (time: Unit): Unit =>
  sameUnit(time, parseUnit('s')) ? parseUnit('Hz') : divideUnits(one, time);

interface Even {
  values: Float64Array;
  interval: number;
  bridged: number;
  isUneven: boolean;
}

/** The readings of an interval in even steps; what is missing or lies between them on the straight line between its neighbours. */
function evenly({ sampling, values }: Series, { first, past, indices }: Selection): Even {
  const length = past - first;
  const [from, to] = [timeAt(sampling, first), timeAt(sampling, past - 1)];
  const regularStep = sampling.kind === 'regular' ? intervalOf(sampling) : null;
  const interval = regularStep ?? (to - from) / (length - 1);
  const bridged = length - indices.length;
  if (bridged > mostMissing * length)
    throw new Refusal(
      `${bridged} of ${length} readings of the region are missing, too many for a spectrum. Choose a region without the gap.`,
    );
  if (!(interval > 0)) throw new Refusal('All readings of the region have one time. Choose a longer one.');
  let isUneven = false;
  const even = new Float64Array(length);
  let right = 0;
  for (let i = 0; i < length; i++) {
    const at = from + i * interval;
    if (regularStep === null && Math.abs(timeAt(sampling, first + i) - at) > unevenness * interval)
      isUneven = true;
    while (right < indices.length - 1 && timeAt(sampling, indices[right]) < at - 1e-9 * interval) right++;
    const [left, here] = [indices[Math.max(right - 1, 0)], indices[right]];
    const [before, after] = [timeAt(sampling, left), timeAt(sampling, here)];
    const share = after > before ? Math.min(Math.max((at - before) / (after - before), 0), 1) : 1;
    even[i] = values[left] + share * (values[here] - values[left]);
    if (after - before > mostMissing * (to - from))
      throw new Refusal(
        `Nothing was read between ${Number(before.toPrecision(5))} and ${Number(after.toPrecision(5))}. Choose a region without the gap.`,
      );
  }
  return { values: even, interval, bridged, isUneven };
}

/** What is lower than this share of the highest amplitude does not stand out. */
const small = 0.05;
/** A peak is drawn with at least so many times its frequency beside it. */
const beside = 3;

/** How far the frequencies reach at which something stands out, with air about them. */
function reachOf(frequencies: Float64Array, amplitudes: Float64Array): number {
  let highest = 0;
  for (let k = 1; k < amplitudes.length; k++) if (amplitudes[k] > amplitudes[highest]) highest = k;
  let last = amplitudes.length - 1;
  const all = frequencies[last];
  while (last > highest && amplitudes[last] < small * amplitudes[highest]) last--;
  return Math.min(Math.max(1.25 * frequencies[last], beside * frequencies[highest]), all) || all;
}

/** A straight line under a sine counts where its slope is so many of its own standard uncertainties. */
const clearDrift = 4;
/** The peak is looked for among frequencies so much closer than the readings tell apart, whatever is drawn. */
const searchPadding = 4;

interface Peak {
  peak: NamedResult[];
  /** The straight line under it; null where there is none to speak of. */
  drift: { slope: number; lineAt(time: number): number } | null;
}

/** The frequency at which a spectrum of at least a period and a half in the region is highest; null where none is. */
function highestIn(
  { values, interval }: Pick<Even, 'values' | 'interval'>,
  base: (i: number) => number,
  window: SpectrumWindow,
): number | null {
  const duration = values.length * interval;
  const padding = Math.max(Math.min(searchPadding, Math.floor(mostNumbers / values.length)), 1);
  const { step, amplitudes } = amplitudeSpectrum(
    values.map((value, i) => value - base(i)),
    window,
    padding,
  );
  let highest = -1;
  for (let k = 1; k < amplitudes.length - 1; k++) {
    const isPeak = amplitudes[k] >= amplitudes[k - 1] && amplitudes[k] >= amplitudes[k + 1];
    if (
      isPeak &&
      (k * step * duration) / interval >= fewestPeriods &&
      !(amplitudes[k] <= amplitudes[highest])
    )
      highest = k;
  }
  return highest < 0 || !(amplitudes[highest] > 0) ? null : (highest * step) / interval;
}

/** The least-squares line through evenly spaced values, by their number. */
function lineThrough(values: Float64Array): (i: number) => number {
  const middle = (values.length - 1) / 2;
  let [mean, up, spread] = [0, 0, 0];
  values.forEach((value, i) => {
    mean += value / values.length;
    spread += square(i - middle);
  });
  values.forEach((value, i) => (up += (i - middle) * (value - mean)));
  return (i) => mean + (up / spread) * (i - middle);
}

/** Whether a line rises at all beside how far values scatter. */
function isLineSeen(values: Float64Array, line: (i: number) => number): boolean {
  const rise = Math.abs(line(values.length - 1) - line(0));
  const { standardDeviation } = describe(values);
  return rise > 0.01 * standardDeviation;
}

/** Frequency and amplitude of the highest peak, none where none stands out, and the drift under it. */
function peakIn(
  series: Series,
  { indices, x: times, y: values }: Selection,
  window: SpectrumWindow,
  even: Pick<Even, 'values' | 'interval'>,
  unit: Unit,
): Peak {
  const duration = even.values.length * even.interval;
  const start = times[0];
  const weights = Float64Array.from(times, (time) => windowWeight(window, (time - start) / duration));
  const line = lineThrough(even.values);
  const overLine = isLineSeen(even.values, line) ? highestIn(even, line, window) : null;
  const onLine = overLine === null ? null : toneOnLine(times, values, weights, overLine);
  const slope =
    onLine === null
      ? null
      : weighed(onLine.slope, divideUnits(series.unit, series.timeUnit), [[series, spread(onLine.slopeBy)]]);
  const isDrifting =
    onLine !== null &&
    Math.abs(onLine.slope) > clearDrift * (slope?.standardUncertainty ?? Infinity) &&
    // A drift of less than a hundredth of the swing over the region does nothing to it.
    Math.abs(onLine.slope * duration) > 0.01 * onLine.amplitude;
  if (onLine !== null && isDrifting)
    return { peak: resultsOf(onLine), drift: { slope: onLine.slope, lineAt: onLine.lineAt } };
  let mean = 0;
  even.values.forEach((value) => (mean += value / even.values.length));
  const highest = highestIn(even, () => mean, window);
  const tone = highest === null ? null : toneAt(times, values, weights, highest, 1 / duration);
  return { peak: tone === null ? [] : resultsOf(tone), drift: null };

  function spread(by: Float64Array) {
    const part = new Float64Array(indices[indices.length - 1] - indices[0] + 1);
    by.forEach((weight, i) => (part[indices[i] - indices[0]] = weight));
    return { first: indices[0], weights: part };
  }
  function resultsOf(tone: Tone): NamedResult[] {
    const frequency = weighed(tone.frequency, unit, [[series, spread(tone.frequencyBy)]]);
    const amplitude = weighed(tone.amplitude, intervalUnit(series.unit), [
      [series, spread(tone.amplitudeBy)],
    ]);
    // Noise alone makes one of so many amplitudes this high in one interval of a hundred.
    const chance = Math.sqrt(2 * log(50 * values.length));
    const isInNoise = tone.amplitude < chance * (amplitude.standardUncertainty ?? 0);
    if (isInNoise) return [];
    return [
      { key: 'frequency', name: 'frequency', quantity: frequency, roundTo: 0.01 / duration, main: true },
      { key: 'amplitude', name: 'amplitude', quantity: amplitude, roundTo: tone.amplitude / 100, main: true },
      {
        key: 'period',
        name: 'period',
        quantity: weighed(1 / tone.frequency, series.timeUnit, [
          [series, spread(tone.frequencyBy.map((by) => -by / square(tone.frequency)))],
        ]),
        roundTo: null,
        main: false,
      },
    ];
  }
}
