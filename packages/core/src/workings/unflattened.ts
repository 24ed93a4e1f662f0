import { type Flattening } from '../calculus/flattening';
import { covarianceOf, exactly, halfWidth, merged, withShared } from '../results/quantity';
import { resultText } from '../results/rounding';
import { indexAfter, indexAtOrAfter, intervalOf } from '../series/sampling';
import { type FilterStep, type Series } from '../series/series';
import { printedUnit } from '../units/unit';
import { type RegionBounds } from './kind';
import { type Outcome } from './outcome';
import { adviceOn, medianNotes, shareText, windowLoss, windowsOf, worthSaying } from './windowLoss';

type Results = Extract<Outcome, { kind: 'results' }>;

/** Results without what windows take off, and by how many steps of two the degrees were raised for them. */
export interface Unflattened {
  outcome: Results;
  raised: number;
  /** What is said of it. */
  says: string[];
}

/** Degrees are raised by so many steps of two at most. */
const mostSteps = 3;
/** A loss below this share of the motion is not looked into. */
const leastLost = 1e-4;
/** What the windows take off a result is left there up to this share of its standard uncertainty. */
const negligible = 0.25;
/** The same where nobody can tell from a spectrum what is lost. */
const negligibleUnseen = 1;
/** What one more degree changes counts from so many standard uncertainties of that change on. */
const clear = 2.5;
/** Differences below this share of a number are rounding in the sums of a window. */
const rounding = 1e-9;
/** A loss of which no more than this share is left at the highest degree stands in ±. */
const mostlyGone = 0.25;

interface About {
  series: readonly Series[];
  region: RegionBounds | null;
  runId: string;
}

/**
 * What windows flatten is told by the same entry worked out through polynomials of higher degrees in the same windows: these
 * follow the motion better, and their own noise stands in their ±. How far the loss of a result falls from degree to degree is
 * told by the spectrum of the readings and the responses of the filters, and its size by the first degree more; the first degree
 * is taken that leaves less than a quarter of the standard uncertainty. What the highest one still leaves counts in ±; where that
 * is most of it, as at a kick within the window, no ± is given.
 * @param asSheet results as the sheet's windows give them
 * @param at the same through degrees raised by so many steps of two, and the series they come from
 */
export function unflattened(
  asSheet: Results,
  about: About,
  at: (raised: number) => { outcome: Outcome; series: readonly Series[] },
): Unflattened {
  const { series, region } = about;
  const medians = medianNotes(series);
  const { steps, found } = windowLoss(series, aboutRegion(series, region), true);
  if (steps.length === 0 || (found !== null && found.lost < leastLost))
    return { outcome: asSheet, raised: 0, says: medians };
  const missing = missingIn(series, region);
  const level = (raised: number): Results | null => {
    const { outcome, series: through } = at(raised);
    // Where readings are missing, a higher degree may find too few in its window, and noise may make it find more crossings: it
    // speaks of something else then.
    const isOfSame =
      outcome.kind === 'results' &&
      missingIn(through, region) === missing &&
      countIn(outcome) === countIn(asSheet);
    return isOfSame ? outcome : null;
  };
  const asItStands = () => ({
    outcome: asSheet,
    raised: 0,
    says: [...medians, ...swingsNote(asSheet, series, region)],
  });
  const first = level(1);
  if (first === null) return asItStands();
  const changes = differencesOf(asSheet, first).filter(
    ({ off, u, size, ofOff }) =>
      Math.abs(off) > (found === null ? negligibleUnseen : negligible) * u &&
      Math.abs(off) > rounding * size &&
      Math.abs(off) > clear * ofOff(),
  );
  if (changes.length === 0) return asItStands();
  const levels = [asSheet, first];
  for (let raised = 1; ; raised++) {
    const left = leftAfter(changes, levels, raised, found, () => {
      levels[raised + 1] ??= (raised < mostSteps ? level(raised + 1) : null) ?? levels[raised];
      return levels[raised + 1];
    });
    const here = levels[raised];
    if (left.every(({ bias, u }) => bias <= (found === null ? negligibleUnseen : negligible) * u))
      return { outcome: here, raised, says: [...medians, changedNote(asSheet, here, raised, steps)] };
    const next = raised < mostSteps ? (levels[raised + 1] ?? level(raised + 1)) : null;
    if (next !== null && next !== here) {
      levels[raised + 1] = next;
      continue;
    }
    const last = withWhatIsOpen(asSheet, here, left, { steps, found, runId: about.runId, raised });
    return { ...last, says: [...medians, ...last.says] };
  }
}

/** A few readings have no spectrum of their own: a region with two windows on either side. */
function aboutRegion(series: readonly Series[], region: RegionBounds | null): RegionBounds | null {
  if (region === null || region.along !== 't') return null;
  let reach = 0;
  for (const { sampling, made } of series)
    for (const { windowPoints } of made)
      reach = Math.max(reach, 2 * windowPoints * (intervalOf(sampling) ?? 0));
  return { ...region, start: region.start - reach, end: region.end + reach };
}

/** What is left of a loss in one result. */
interface Left {
  key: string;
  bias: number;
  /** Of all that was lost. */
  share: number;
  /** Standard uncertainty of the result. */
  u: number;
}

/** What polynomials raised so many times still leave of the losses that the first of them has shown. */
function leftAfter(
  changes: readonly Difference[],
  levels: readonly Results[],
  raised: number,
  found: Flattening | null,
  next: () => Results,
): Left[] {
  const uncertaintyOf = (key: string) =>
    levels[raised].results.find((one) => one.key === key)?.quantity.standardUncertainty ?? 0;
  if (found !== null) {
    const gained = found.lost - found.lostRaised(1);
    const share = gained > 0 ? found.lostRaised(raised) / found.lost : 1;
    const whole = gained > 0 ? found.lost / gained : Infinity;
    return changes.map(({ key, off }) => ({
      key,
      bias: share * whole * Math.abs(off),
      share,
      u: uncertaintyOf(key),
    }));
  }
  const further = differencesOf(levels[raised], next());
  return changes.map(({ key, off }) => {
    const more = further.find((one) => one.key === key);
    const isClear = more !== undefined && Math.abs(more.off) > clear * more.ofOff();
    const bias = isClear ? Math.abs(more.off) : 0;
    return { key, bias, share: Math.min(bias / Math.abs(off), 1), u: uncertaintyOf(key) };
  });
}

/** How many of something an entry has found. */
const countIn = ({ results }: Results): number | undefined =>
  results.find(({ key }) => key === 'count')?.quantity.value;

/** Values that are missing of some series in a region. */
function missingIn(all: readonly Series[], region: RegionBounds | null): number {
  let missing = 0;
  for (const { sampling, values } of all) {
    const isInTime = region !== null && region.along === 't';
    const first = isInTime ? indexAtOrAfter(sampling, region.start) : 0;
    const past = isInTime ? indexAfter(sampling, region.end) : values.length;
    for (let i = first; i < past; i++) if (values[i] !== values[i]) missing++;
  }
  return missing;
}

interface Difference {
  key: string;
  name: string;
  /** What the second has more than the first. */
  off: number;
  /** Standard uncertainty of the first, and its magnitude. */
  u: number;
  size: number;
  /** Standard uncertainty of the difference, of which most is common to both. */
  ofOff(): number;
}

/** Numbers with an uncertainty that both have. */
function differencesOf(here: Results, next: Results): Difference[] {
  return here.results.flatMap(({ key, name, quantity }) => {
    const u = quantity.standardUncertainty;
    const other = next.results.find((one) => one.key === key)?.quantity;
    if (u === null || !(u > 0) || other === undefined) return [];
    const plain = other.value - quantity.value;
    const off = key === 'phase' ? plain - 2 * Math.PI * Math.round(plain / (2 * Math.PI)) : plain;
    const ofOff = () => {
      const common = covarianceOf(quantity, other);
      return Math.sqrt(Math.max(u ** 2 + (other.standardUncertainty ?? 0) ** 2 - 2 * common, 0));
    };
    return Number.isFinite(off) ? [{ key, name, off, u, size: Math.abs(quantity.value), ofOff }] : [];
  });
}

/** Where even the highest degree leaves more than ± bears. */
function withWhatIsOpen(
  asSheet: Results,
  here: Results,
  left: readonly Left[],
  {
    steps,
    found,
    runId,
    raised,
  }: { steps: readonly FilterStep[]; found: Flattening | null; runId: string; raised: number },
): Unflattened {
  if (left.every(({ share }) => share <= mostlyGone)) {
    const root = `${runId}/${windowsOf(steps)}`;
    const label = `what ${lowered(windowsOf(steps))} still ${isOne(steps) ? 'flattens' : 'flatten'}`;
    const results = here.results.map((result) => {
      const own = left.find(({ key }) => key === result.key);
      if (own === undefined) return result;
      const { quantity } = result;
      const further = { root, label, effect: { first: 0, weights: Float64Array.of(own.bias) } };
      return {
        ...result,
        quantity: {
          ...quantity,
          ...withShared(quantity, [further]),
          influences: () => merged([...quantity.influences(), further]),
        },
      };
    });
    const note = changedNote(asSheet, here, raised, steps);
    return {
      outcome: { ...here, results },
      raised,
      says: [`${note} What that may still take off stands in ±.`],
    };
  }
  const lost = new Set(left.filter(({ share }) => share > mostlyGone).map(({ key }) => key));
  const names = asSheet.results.filter(({ key }) => lost.has(key)).map(({ name }) => name);
  const results = asSheet.results.map((result) =>
    lost.has(result.key)
      ? { ...result, quantity: exactly(result.quantity.value, result.quantity.unit) }
      : result,
  );
  const share = found === null ? '' : `, about ${shareText(found.lost)},`;
  const one = isOne(steps);
  return {
    outcome: { ...asSheet, results },
    raised: 0,
    says: [
      `${windowsOf(steps)} ${one ? 'takes' : 'take'} off${share} what is quicker than ${one ? 'it' : 'they'} in this region, and no polynomial brings it back: no honest ± of ${names.join(', ')} can be given.${found === null ? '' : ` ${adviceOn(found)}`}`,
    ],
  };
}

const isOne = (steps: readonly FilterStep[]) => new Set(steps.map(({ symbol }) => symbol)).size === 1;
const lowered = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

/** What the numbers would be as the windows stand, told of the one that has changed most. */
function changedNote(
  asSheet: Results,
  outcome: Results,
  raised: number,
  steps: readonly FilterStep[],
): string {
  const changes = differencesOf(asSheet, outcome).sort(
    (a, b) => Math.abs(b.off / b.u) - Math.abs(a.off / a.u),
  );
  const told = asSheet.results.find(({ key }) => key === changes[0]?.key);
  const degrees = [...new Set(steps.map(({ degree }) => degree + 2 * raised))].join(' and ');
  const before =
    told === undefined
      ? ''
      : `: ${told.name} would be ${resultText(told.quantity.value, halfWidth(told.quantity))} ${printedUnit(told.quantity.unit)}`.trimEnd();
  return `${windowsOf(steps)} ${isOne(steps) ? 'flattens' : 'flatten'} what is in this region${before}. This is corrected: it is worked out through polynomials of degree ${degrees}.`;
}

/** Spread and extremes have no ± that could tell what is lost. */
function swingsNote({ results }: Results, series: readonly Series[], region: RegionBounds | null): string[] {
  if (!results.some(({ key }) => key === 'sd')) return [];
  const { steps, found } = windowLoss(series, region, true);
  if (found === null || found.lost < worthSaying) return [];
  return [
    `${windowsOf(steps)} ${isOne(steps) ? 'takes' : 'take'} ${shareText(found.lost)} off the swings in this region, and so off sd, min, max and range; the mean loses nothing that counts. ${adviceOn(found)}`,
  ];
}
