import { type Plan, type PlanPatch, longestOf, usualPlan } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { rateText } from '../../ui/rateText';
import { rateFrom } from '../../sensors/rateFault';
import { type Quantity } from '../../sensors/sensors';
import { type SeenReadings } from '../../workers/seen';
import { shortText } from '../../ui/numberText';

/** Something about the next run that looks wrong, and what would mend it. It never stops anybody from recording. */
export interface Hint {
  text: string;
  mend: { label: string; does: Mend } | null;
}

export type Mend =
  | { kind: 'rate'; quantity: Quantity; rate: number }
  | { kind: 'range'; quantity: Quantity; range: string }
  | { kind: 'zero'; device: Quantity['device']; channels: string[] }
  | { kind: 'plan'; patch: PlanPatch }
  | { kind: 'flash'; device: Quantity['device'] };

/** The last ten seconds of a quantity, as they came. */
export type Recent = (quantity: Quantity) => readonly number[];

/** What a quantity showed in the runs that there are, the oldest first. What hands do between runs is no part of it. */
export type InRuns = (quantity: Quantity) => readonly SeenReadings[];

/** Readings that a period needs to be seen well, and the fewest that let a rate pass without a word. Common practice, no source. */
const [readingsPerPeriod, fewestPerPeriod] = [20, 14];
/** A zero of these is what a run is worth; of a position it is a matter of choice. */
const needingZero = ['force', 'magnetic flux density'];
const staleMinutes = 30;
const emptyBattery = 0.15;
/** A range this much smaller than what is in use would still hold all that was seen. */
const roomInRange = 0.8;
const largeRunBytes = 200e6;
const usualSeconds = 8;

const shown = (value: number) => shortText(value, 3);

export function hintsOf(
  plan: Plan,
  quantities: readonly Quantity[],
  { recent, inRuns }: { recent: Recent; inRuns: InRuns },
  now: number,
): Hint[] {
  return [
    ...missing(plan, quantities),
    ...backwards(plan, quantities),
    ...unhurried(plan, quantities),
    ...quantities.flatMap((quantity) => [
      ...pinned(quantity, recent(quantity)),
      ...slow(quantity, inRuns(quantity)),
      ...needless(quantity, inRuns(quantity)),
    ]),
    ...zeroed(quantities, now),
    ...batteries(quantities),
    ...large(plan, quantities),
  ];
}

/** What a plan waits for has to be there. */
function missing({ begin, end }: Plan, quantities: readonly Quantity[]): Hint[] {
  const nameIn = (part: Plan['begin'] | Plan['end']) =>
    part.kind === 'level' ? part.level.quantity : 'quantity' in part ? part.quantity : null;
  const isGone = (name: string | null): name is string =>
    name !== null && quantities.length > 0 && !quantities.some(({ key }) => key === name);
  const [first, last] = [nameIn(begin), nameIn(end)];
  const waits: Hint[] = isGone(first)
    ? [
        {
          text: `The plan waits for ${first}, and no sensor measures it.`,
          mend: { label: 'Begin when pressed', does: { kind: 'plan', patch: { begin: usualPlan.begin } } },
        },
      ]
    : [];
  const ends: Hint[] = isGone(last)
    ? [
        {
          text: `The plan ends at ${last}, and no sensor measures it.`,
          mend: {
            label: 'End after a time',
            does: {
              kind: 'plan',
              patch: { end: { kind: 'after', seconds: longestOf({ end }) ?? usualSeconds } },
            },
          },
        },
      ]
    : [];
  return [...waits, ...ends];
}

/** Passes through a gate come when they come; a run of a set length ends in the middle of them. */
function unhurried({ end }: Plan, quantities: readonly Quantity[]): Hint[] {
  const isGate = quantities.length > 0 && quantities.every(({ stream }) => stream.edges?.of === 'beam');
  if (!isGate || end.kind !== 'after' || end.seconds > usualSeconds) return [];
  return [
    {
      text: `A gate waits for what passes; this run ends after ${shown(end.seconds)} s anyway.`,
      mend: { label: 'End when stopped', does: { kind: 'plan', patch: { end: { kind: 'stopped' } } } },
    },
  ];
}

function pinned(quantity: Quantity, values: readonly number[]): Hint[] {
  const { channel, stream, device } = quantity;
  const last = values.slice(-5);
  if (stream.sampling !== 'regular' || last.length < 5) return [];
  if (last.some((value) => value > channel.low && value < channel.high)) return [];
  const wider = channel.ranges
    .filter((range) => range.high - range.low > spanOf(quantity))
    .sort((a, b) => a.high - a.low - (b.high - b.low))
    .at(0);
  return [
    {
      text: `${channel.symbol} is at its limit (${device.code}) and measures nothing.`,
      mend:
        wider === undefined
          ? null
          : {
              label: `Take the range to ${shown(wider.high)} ${printedUnit(parseUnit(channel.own.unit))}`,
              does: { kind: 'range', quantity, range: wider.key },
            },
    },
  ];
}

const spanOf = ({ channel }: Quantity) => {
  const range = channel.ranges.find(({ key }) => key === channel.range) ?? channel.ranges[0];
  return range.high - range.low;
};

/** A rate that met the motion of the last run too coarsely. */
function slow(quantity: Quantity, runs: readonly SeenReadings[]): Hint[] {
  const { channel, stream } = quantity;
  const { rate, rates, sampling } = stream;
  const band = runs.at(-1)?.band ?? null;
  if (sampling !== 'regular' || band === null || rate >= band * fewestPerPeriod) return [];
  const wanted = rateFrom(rates, Math.min(niceAbove(band * readingsPerPeriod), rates.highest));
  if (wanted <= rate) return [];
  return [
    {
      text: `In the last run ${channel.symbol} moved with up to ${shortText(band, 2)} Hz: at ${rateText(rate)} a period has ${shortText(rate / band, 2)} readings; ${readingsPerPeriod} show it well.`,
      mend: { label: `Take ${rateText(wanted)}`, does: { kind: 'rate', quantity, rate: wanted } },
    },
  ];
}

/** The next number of the row 1, 2, 5, 10 … */
function niceAbove(value: number): number {
  if (!(value > 0)) return 0;
  const power = 10 ** Math.floor(Math.log10(value));
  return ([1, 2, 5, 10].find((step) => step * power >= value) ?? 10) * power;
}

/** The last number of that row that is not above a value. */
function niceBelow(value: number): number {
  const power = 10 ** Math.floor(Math.log10(value));
  return ([5, 2].find((step) => step * power <= value) ?? 1) * power;
}

/** Zeros that were never made, or long ago; those of one device are said and made together. */
function zeroed(quantities: readonly Quantity[], now: number): Hint[] {
  const concerned = quantities.filter(
    ({ channel, stream }) => !channel.zeroAtStart && stream.sampling === 'regular',
  );
  return [...new Set(concerned.map(({ device }) => device))].flatMap((device) => {
    const own = concerned.filter((quantity) => quantity.device === device).map(({ channel }) => channel);
    const atOf = (key: string) => device.calibration.zeros[key]?.at;
    const never = own.filter(({ key, own: { quantity } }) => !atOf(key) && needingZero.includes(quantity));
    const stale = own.filter(({ key }) => minutesSince(atOf(key), now) >= staleMinutes);
    const hint = (channels: typeof own, text: string): Hint[] =>
      channels.length === 0
        ? []
        : [
            {
              text: `${channels.map(({ symbol }) => symbol).join(', ')} (${device.code}) ${channels.length === 1 ? 'was' : 'were'} ${text}`,
              mend: {
                label: channels.length === 1 ? 'Zero it now' : 'Zero them now',
                does: { kind: 'zero', device, channels: channels.map(({ key }) => key) },
              },
            },
          ];
    const longest = Math.max(...stale.map(({ key }) => minutesSince(atOf(key), now)));
    return [...hint(never, 'never zeroed.'), ...hint(stale, `last zeroed ${agoWords(longest)} ago.`)];
  });
}

const minutesSince = (at: string | undefined, now: number) =>
  at === undefined ? -Infinity : (now - new Date(at).getTime()) / 60_000;

const agoWords = (minutes: number) =>
  minutes < 120
    ? `${Math.round(minutes)} minutes`
    : minutes < 2880
      ? `${Math.round(minutes / 60)} hours`
      : `${Math.round(minutes / 1440)} days`;

/** A run cannot begin beyond the level at which it is to end. */
function backwards({ begin, end }: Plan, quantities: readonly Quantity[]): Hint[] {
  if (begin.kind !== 'level' || end.kind !== 'level') return [];
  const [a, b] = [begin.level, end.level];
  const isAlike =
    a.quantity === b.quantity && a.of === b.of && a.direction === b.direction && a.unit === b.unit;
  const isBeyond = a.direction === 'rise' ? b.value < a.value : b.value > a.value;
  if (!isAlike || !isBeyond) return [];
  const symbol = quantities.find(({ key }) => key === a.quantity)?.channel.symbol ?? a.quantity;
  const back = b.direction === 'rise' ? ('fall' as const) : ('rise' as const);
  return [
    {
      text: `A run would begin when ${symbol} is past the level at which it is to end. Let it end further on, or when ${symbol} comes back through that level.`,
      mend: {
        label: `End when it ${back}s`,
        does: { kind: 'plan', patch: { end: { ...end, level: { ...b, direction: back } } } },
      },
    },
  ];
}

/** A range larger than any run has needed. */
function needless(quantity: Quantity, runs: readonly SeenReadings[]): Hint[] {
  const { channel } = quantity;
  const least = Math.min(...runs.map((run) => run.least));
  const greatest = Math.max(...runs.map((run) => run.greatest));
  if (channel.ranges.length < 2 || !(least <= greatest)) return [];
  const finer = channel.ranges
    .filter(
      ({ low, high }) =>
        high - low < spanOf(quantity) && least > low * roomInRange && greatest < high * roomInRange,
    )
    .sort((a, b) => a.high - a.low - (b.high - b.low))
    .at(0);
  if (finer === undefined) return [];
  return [
    {
      text: `All that ${channel.symbol} showed in ${runs.length === 1 ? 'the run' : 'the runs'} lies within a finer range, which is more precise.`,
      mend: {
        label: `Take the range to ${shown(finer.high)} ${printedUnit(parseUnit(channel.own.unit))}`,
        does: { kind: 'range', quantity, range: finer.key },
      },
    },
  ];
}

function batteries(quantities: readonly Quantity[]): Hint[] {
  const devices = [...new Set(quantities.map(({ device }) => device))];
  return devices
    .filter(({ battery }) => battery !== null && battery < emptyBattery)
    .map((device) => ({
      text: `The battery of ${device.code} is at ${Math.round((device.battery ?? 0) * 100)} %. Charge it soon.`,
      mend: { label: 'Make it flash', does: { kind: 'flash', device } },
    }));
}

function large(plan: Plan, quantities: readonly Quantity[]): Hint[] {
  const seconds = longestOf(plan);
  const regular = quantities.filter(({ stream }) => stream.sampling === 'regular');
  if (seconds === null || regular.length === 0) return [];
  const bytes = regular.reduce((sum, { stream }) => sum + stream.rate, 0) * seconds * 8;
  if (bytes < largeRunBytes) return [];
  const fastest = regular.reduce((most, quantity) =>
    quantity.stream.rate > most.stream.rate ? quantity : most,
  );
  const { rate, rates } = fastest.stream;
  const slower = rateFrom(rates, Math.max(niceBelow((rate * largeRunBytes) / bytes), rates.lowest));
  return [
    {
      text: `A run of this plan takes about ${bytes < 1e9 ? `${Math.round(bytes / 1e6)} MB` : `${shown(bytes / 1e9)} GB`}; a slower rate or a shorter run would do with less.`,
      mend:
        slower < rate
          ? { label: `Take ${rateText(slower)}`, does: { kind: 'rate', quantity: fastest, rate: slower } }
          : null,
    },
  ];
}
