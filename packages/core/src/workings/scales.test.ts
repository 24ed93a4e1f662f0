import { repetitions } from '../testing/effort';
import { randomRun, randomSheet } from '../testing/randomSheets';
import { channelOf } from '../testing/sheet';
import { conversionOf } from '../units/conversion';
import { parseUnit, ucumCode } from '../units/unit';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { type NamedResult } from './outcome';
import { type ChannelData, type RunData } from './run';

// The same temperatures, read by a thermometer in K, in °C and in °F, say the same.

const scales: readonly [unit: string, factor: number, zero: number][] = [
  ['Cel', 1, 273.15],
  ['[degF]', 1.8, 459.67],
];

/** A channel about 300 K, as a thermometer of another scale shows it. */
function onScale(channel: ChannelData, unit: string, factor: number, zero: number): ChannelData {
  const shown = (value: number) => factor * (value + 300) - zero;
  return {
    ...channel,
    unit: parseUnit(unit),
    values: channel.values.map(shown),
    high: channel.high === null ? null : shown(channel.high),
    noise: channel.noise === null ? null : factor * channel.noise,
    ...(channel.uncertainties === undefined
      ? {}
      : { uncertainties: channel.uncertainties.map((u) => factor * u) }),
    ...(channel.systematic === undefined
      ? {}
      : { systematic: channel.systematic.map((one) => ({ ...one, offset: factor * one.offset })) }),
  };
}

/** What is given in round numbers of its own scale, or asked in the numbers of a scale. */
const ofItsScale = (entry: Entry): boolean =>
  entry.kind === 'histogram' ||
  entry.kind === 'crossings' ||
  ((entry.kind === 'area' || entry.kind === 'integral') &&
    (entry.baseline === 'zero' || entry.baseline === 'level')) ||
  JSON.stringify(entry).includes('"level":0,"count"');

/** Entries that say other things by right, and all that speak of them. */
function apart(entries: readonly Entry[]): Set<string> {
  const out = new Set<string>();
  for (const entry of entries) {
    const speaksOf = [...JSON.stringify({ ...entry, id: '' }).matchAll(/(?:entry|result):(\w+)/g)];
    if (ofItsScale(entry) || speaksOf.some(([, id]) => out.has(id))) out.add(entry.id);
  }
  return out;
}

function difference(one: NamedResult, other: NamedResult): string | null {
  const { factor, offset } = conversionOf(other.quantity.unit, one.quantity.unit);
  const value = other.quantity.value * factor + offset;
  const [a, b] = [one.quantity.standardUncertainty, other.quantity.standardUncertainty];
  const u = b === null ? null : b * factor;
  // 300 K are written with 2·10⁻¹⁶ of themselves, and fits end where nothing is left to gain.
  const size = Math.max(Math.abs(one.quantity.value), 1e-3);
  const isSame =
    Object.is(value, one.quantity.value) ||
    Math.abs(value - one.quantity.value) <= 1e-6 * size + 0.01 * (a ?? 0);
  const isSameU = a === null || u === null ? a === u : Math.abs(a - u) <= 0.02 * a + 1e-7 * size;
  return isSame && isSameU
    ? null
    : `${one.key}: ${one.quantity.value} ± ${a} ${ucumCode(one.quantity.unit)}, ${value} ± ${u}`;
}

test('random sheets say the same of temperatures in K, °C and °F', () => {
  const differences: string[] = [];
  let compared = 0;
  const sheets = repetitions(150, 400);
  for (let seed = 0; seed < sheets; seed++) {
    const run = randomRun(seed);
    if (run.channels[1].values.some((value) => Math.abs(value) > 1e6)) continue;
    const entries = randomSheet(seed);
    const different = apart(entries);
    const read = (unit: string, factor: number, zero: number) => {
      const shown: RunData = {
        ...run,
        channels: [run.channels[0], onScale(run.channels[1], unit, factor, zero)],
      };
      return evaluate({ entries }, shown).outcomes;
    };
    const inKelvin = read('K', 1, 0);
    for (const [unit, factor, zero] of scales) {
      const others = read(unit, factor, zero);
      for (const { id, kind } of entries) {
        const [one, other] = [inKelvin.get(id), others.get(id)];
        const where = `sheet ${seed}, ${kind} ${id} in ${unit}`;
        if (different.has(id)) continue;
        if (one?.kind !== other?.kind) differences.push(`${where}: ${one?.kind}, ${other?.kind}`);
        if (one?.kind !== 'results' || other?.kind !== 'results') continue;
        one.results.forEach((result, i) => {
          compared++;
          const found = difference(result, other.results[i]);
          if (found !== null) differences.push(`${where}, ${found}`);
        });
      }
    }
  }
  expect(differences).toEqual([]);
  expect(compared).toBeGreaterThan(5 * sheets);
});

// The molar gas constant: CODATA 2022, R = 8.314462618… J/(mol K), exact since 2019; 0.04 mol in 1 l.
test('a gas thermometer read in °C or °F gives its pressure per kelvin, by relation, in the words of the note', () => {
  const factor = (0.04 * 8.314462618) / 1e-3;
  for (const [unit, per, zero] of [['K', 1, 0], ...scales] as const) {
    const temperatures = Float64Array.from({ length: 40 }, (_, i) => per * (273.15 + 2 * i) - zero);
    const pressures = temperatures.map((t) => factor * ((t + zero) / per));
    const fit = (relation: string) =>
      evaluate(
        { entries: [{ ...proportionalFit, relation } as Entry] },
        {
          id: 'r',
          channels: [channelOf('p', 'Pa', pressures, 1), channelOf('T', unit, temperatures, 1)],
        },
      ).outcomes.get('f');
    const found = fit('proportional');
    if (found?.kind !== 'results') throw new Error(JSON.stringify(found));
    const { quantity } = found.results[0];
    const { factor: toKelvin } = conversionOf(quantity.unit, parseUnit('Pa/K'));
    expect(quantity.value * toKelvin).toBeCloseTo(factor, 6);
    expect(found.fitted?.valueAt(temperatures[7])).toBeCloseTo(pressures[7], 3);
    const power = fit('power');
    if (power?.kind !== 'results') throw new Error(JSON.stringify(power));
    expect(power.results[0].quantity.value).toBeCloseTo(1, 6);
    const told = found.notes.filter((note) => note.includes('absolute zero'));
    expect(told).toEqual(
      unit === 'K'
        ? []
        : [
            `T counts from absolute zero (−${zero} ${unit === 'Cel' ? '°C' : '°F'}) in this relation, as in a formula.`,
          ],
    );
  }
});

const proportionalFit = {
  kind: 'fit',
  id: 'f',
  name: '',
  relation: 'proportional',
  of: 'channel:p',
  against: 'channel:T',
  region: null,
  weights: 'equal',
  showResiduals: false,
  showBand: false,
  showCurveBand: false,
  bandsHold: '68',
  showBeyond: false,
  also: [],
};
