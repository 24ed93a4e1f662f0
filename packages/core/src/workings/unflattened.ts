import { square } from '../elementary';
import { once } from '../once';
import { type Flattening } from '../calculus/flattening';
import { covarianceOf, exactly, halfWidth, merged, withShared } from '../results/quantity';
import { resultText } from '../results/rounding';
import { countOf, indexAfter, indexAtOrAfter, intervalOf } from '../series/sampling';
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
/** What another degree changes counts from so many standard uncertainties of that change on. */
const clear = 2.5;
/** That it changes nothing is sure where the change is known to this share of the result's standard uncertainty. */
const sure = 0.3;
/** The next degree helps where it leaves less than this share. */
const helping = 0.5;
/** Differences below this share of a number are rounding in the sums of a window. */
const rounding = 1e-9;
/** A loss of which no more than this share is left at the highest degree stands in ±. */
const mostlyGone = 0.25;
/** So many things at an end of an interval may be found or not. */
const atTheEnd = 1;
/** A region of so many windows has a spectrum of its own. */
const ownSpectrum = 3;

interface About {
  series: readonly Series[];
  region: RegionBounds | null;
  runId: string;
}

/** Results through degrees raised so many times; null where they speak of something else. */
type Level = (raised: number) => Results | null;

/**
 * What windows flatten follows from the same entry worked out through polynomials of higher degrees in the same windows: these
 * follow the motion better, and their own noise stands in their ±. How far the loss of a result falls from degree to degree is
 * found by the spectrum of the readings and the responses of the filters, and its size by how far the result moves; the first degree
 * is taken that leaves less than a quarter of the standard uncertainty. Where the spectrum shows a loss and noise hides whether it
 * touches a result, that one is taken through a higher degree too. What the highest one still leaves counts in ±; where that is most
 * of it, as at a kick within the window, no ± is given.
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
  const level: Level = (raised) => {
    const { outcome, series: through } = at(raised);
    // Where readings are missing, a higher degree may find too few in its window, and noise may make it find more crossings: it
    // speaks of something else then. A cycle that just begins at an end is found or not.
    const isOfSame =
      outcome.kind === 'results' &&
      missingIn(through, region) === missing &&
      Math.abs(countIn(outcome) - countIn(asSheet)) <= atTheEnd;
    return isOfSame ? outcome : null;
  };
  const flattened = {
    steps,
    found,
    runId: about.runId,
    isWhole: missing === 0 && !touchesEnd(series, region),
    hasBreaks: hasBreaks(series, region),
  };
  const corrected =
    found === null ? unseen(asSheet, level, flattened) : seen(asSheet, level, { ...flattened, found });
  if (corrected !== null) return { ...corrected, says: [...medians, ...corrected.says] };
  const isUntold = found !== null && found.lost > worthSaying && level(1) === null;
  if (isUntold) return untold(asSheet, medians, steps, found);
  return { outcome: asSheet, raised: 0, says: [...medians, ...swingsNote(asSheet, series, region)] };
}

/** A few readings have no spectrum of their own: a region of less than three windows, with two windows on either side. */
function aboutRegion(series: readonly Series[], region: RegionBounds | null): RegionBounds | null {
  if (region === null || region.along !== 't') return null;
  let window = 0;
  for (const { sampling, made } of series)
    for (const { windowPoints } of made)
      window = Math.max(window, windowPoints * (intervalOf(sampling) ?? 0));
  if (region.end - region.start > ownSpectrum * window) return region;
  return { ...region, start: region.start - 2 * window, end: region.end + 2 * window };
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

interface Flattened {
  steps: readonly FilterStep[];
  found: Flattening | null;
  runId: string;
  /** Whether all windows are whole: no reading missing, and none that hangs over the end of the run. */
  isWhole: boolean;
  /** Whether the readings break within reach of them: no polynomial follows that, and higher ones swing to either side of it. */
  hasBreaks: boolean;
}

/** Whether a region reaches to where windows hang over the beginning or the end of a run; of all of it that is the least part. */
const touchesEnd = (all: readonly Series[], region: RegionBounds | null): boolean =>
  region?.along === 't' &&
  all.some(({ sampling, made }) => {
    const half = made.reduce((sum, { windowPoints }) => sum + (windowPoints - 1) / 2, 0);
    const [first, past] = [indexAtOrAfter(sampling, region.start), indexAfter(sampling, region.end)];
    return first < half || past > countOf(sampling) - half;
  });

/** Whether the readings break somewhere in a region, or so near that its windows reach there. */
const hasBreaks = (all: readonly Series[], region: RegionBounds | null): boolean =>
  all.some(({ noise, sampling, made }) => {
    if (noise === null) return false;
    const half = made.reduce((sum, { windowPoints }) => sum + (windowPoints - 1) / 2, 0);
    const isInTime = region !== null && region.along === 't';
    const first = isInTime ? indexAtOrAfter(sampling, region.start) - half : 0;
    const past = isInTime ? indexAfter(sampling, region.end) + half : countOf(sampling);
    return noise.root.level.hasBreak(first, past);
  });

const isClear = ({ off, size, ofOff }: Difference) =>
  Math.abs(off) > rounding * size && Math.abs(off) > clear * ofOff();

/** Where a spectrum shows what is lost; null where the results stand as they are. */
function seen(
  asSheet: Results,
  level: Level,
  flattened: Flattened & { found: Flattening },
): Unflattened | null {
  const { found } = flattened;
  const first = level(1);
  if (first === null) return null;
  const toFirst = differencesOf(asSheet, first);
  const helps = found.lostRaised(1) < helping * found.lost;
  const isDoubted = (one: Difference) =>
    (isClear(one) && Math.abs(one.off) > negligible * one.u) ||
    ((found.lost > worthSaying || found.lost * one.size > negligible * one.u) &&
      !(helps && one.ofOff() <= sure * one.u));
  const doubted = new Set(toFirst.filter(isDoubted).map(({ key }) => key));
  if (doubted.size === 0) return null;
  let [here, raised, before] = [first, 1, asSheet];
  for (;;) {
    const lost = found.lostRaised(raised);
    const ratio = lost < found.lost ? lost / (found.lost - lost) : Infinity;
    // A window that is not whole flattens by more than its response says: what the last degree has changed tells how much more.
    const changes = here === first ? toFirst : differencesOf(asSheet, here);
    const steps = flattened.isWhole ? [] : before === asSheet ? changes : differencesOf(before, here);
    const left = changes
      .filter(({ key }) => doubted.has(key))
      .map((one): Left => {
        const step = steps.find(({ key }) => key === one.key);
        const open =
          step === undefined ? 0 : helping * (Math.abs(step.off) + (isClear(step) ? 0 : step.ofOff()));
        const ofBreaks = flattened.hasBreaks ? helping * Math.abs(one.off) : 0;
        return {
          key: one.key,
          bias: Math.max(ratio * (Math.abs(one.off) + (isClear(one) ? 0 : one.ofOff())), open, ofBreaks),
          share: lost / found.lost,
          u: one.uNext,
        };
      });
    if (left.every(({ bias, u }) => bias <= negligible * u))
      return { outcome: here, raised, says: [changedNote(asSheet, here, raised, flattened)] };
    const next = raised < mostSteps ? level(raised + 1) : null;
    if (next === null) return withWhatIsOpen(asSheet, here, left, { ...flattened, raised });
    [before, here] = [here, next];
    raised++;
  }
}

/** Where nobody can tell from a spectrum what is lost: degrees are raised until one more changes nothing. */
function unseen(asSheet: Results, level: Level, flattened: Flattened): Unflattened | null {
  let here = asSheet;
  let before = new Map<string, number>();
  for (let raised = 0; ; raised++) {
    const next = raised < mostSteps ? level(raised + 1) : null;
    const changes =
      next === null
        ? []
        : differencesOf(here, next).filter(
            (one) => isClear(one) && Math.abs(one.off) > negligibleUnseen * one.u,
          );
    if (next === null && raised > 0 && before.size > 0) {
      const left = [...before].map(([key, off]): Left => ({ key, bias: Math.abs(off), share: 0, u: 0 }));
      return withWhatIsOpen(asSheet, here, left, { ...flattened, raised });
    }
    if (next === null || changes.length === 0)
      return raised === 0
        ? null
        : { outcome: here, raised, says: [changedNote(asSheet, here, raised, flattened)] };
    const isFalling = changes.every(
      ({ key, off }) => Math.abs(off) < helping * Math.abs(before.get(key) ?? Infinity),
    );
    if (raised > 0 && !isFalling) {
      const left = changes.map(({ key, off }): Left => ({ key, bias: Math.abs(off), share: 1, u: 0 }));
      return withWhatIsOpen(asSheet, here, left, { ...flattened, raised });
    }
    before = new Map(changes.map(({ key, off }) => [key, off]));
    here = next;
  }
}

/** How many of something an entry has found. */
const countIn = ({ results }: Results): number =>
  results.find(({ key }) => key === 'count')?.quantity.value ?? 0;

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
  /** Standard uncertainties of the first and the second, and the magnitude of the first. */
  u: number;
  uNext: number;
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
    const ofOff = once(() => {
      const common = covarianceOf(quantity, other);
      return Math.sqrt(Math.max(square(u) + square(other.standardUncertainty ?? 0) - 2 * common, 0));
    });
    const uNext = other.standardUncertainty ?? 0;
    return Number.isFinite(off) ? [{ key, name, off, u, uNext, size: Math.abs(quantity.value), ofOff }] : [];
  });
}

/** Where even the highest degree leaves more than ± bears. */
function withWhatIsOpen(
  asSheet: Results,
  here: Results,
  left: readonly Left[],
  flattened: Flattened & { raised: number },
): Unflattened {
  const { steps, found, runId, raised } = flattened;
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
    const note = changedNote(asSheet, here, raised, flattened);
    return {
      outcome: { ...here, results },
      raised,
      says: [`${note} What that may still flatten is included in ±.`],
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
    outcome: { ...withoutWordsOnIt(asSheet), results },
    raised: 0,
    says: [
      `${windowsOf(steps)} ${one ? 'takes' : 'take'} off${share} what is quicker than ${one ? 'it' : 'they'} in this region, and no polynomial brings it back: no reliable ± of ${names.join(', ')} can be given.${found === null ? '' : ` ${adviceOn(found)}`}`,
    ],
  };
}

const isOne = (steps: readonly FilterStep[]) => new Set(steps.map(({ symbol }) => symbol)).size === 1;
const lowered = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

/** What the numbers would be as the windows stand, for the one that has changed most; or that noise hides whether they change. */
function changedNote(
  asSheet: Results,
  outcome: Results,
  raised: number,
  { steps, found }: Flattened,
): string {
  const changes = differencesOf(asSheet, outcome).sort(
    (a, b) => Math.abs(b.off / b.u) - Math.abs(a.off / a.u),
  );
  const result = asSheet.results.find(({ key }) => key === changes[0]?.key);
  const degrees = [...new Set(steps.map(({ degree }) => degree + 2 * raised))].join(' and ');
  const through = `worked out through polynomials of degree ${degrees}`;
  const one = isOne(steps);
  if (!changes.some(isClear) && found !== null)
    return `${windowsOf(steps)} ${one ? 'takes' : 'take'} ${shareText(found.lost)} off the swings in this region, and noise hides how much of it this loses. It is ${through}, so that ± holds that too.`;
  const before =
    result === undefined
      ? ''
      : `: ${result.name} would be ${resultText(result.quantity.value, halfWidth(result.quantity))} ${printedUnit(result.quantity.unit)}`.trimEnd();
  return `${windowsOf(steps)} ${one ? 'flattens' : 'flatten'} what is in this region${before}. This is corrected: it is ${through}.`;
}

/** Without the sentence on what ± is, where there is none any more. */
const withoutWordsOnIt = (outcome: Results): Results => ({
  ...outcome,
  notes: outcome.notes.filter((note) => !note.startsWith('± is')),
});

/** Where no higher degree speaks of the same, as with many readings missing, nobody can tell what of a loss a result has. */
const untold = (
  asSheet: Results,
  medians: readonly string[],
  steps: readonly FilterStep[],
  found: Flattening,
): Unflattened => ({
  outcome: {
    ...withoutWordsOnIt(asSheet),
    results: asSheet.results.map((result) => ({
      ...result,
      quantity: exactly(result.quantity.value, result.quantity.unit),
    })),
  },
  raised: 0,
  says: [
    ...medians,
    `${windowsOf(steps)} ${isOne(steps) ? 'takes' : 'take'} ${shareText(found.lost)} off the swings in this region. With what is missing here it cannot be told how much of it this loses, and so no reliable ± can be given. ${adviceOn(found)}`,
  ],
});

/** Spread and extremes have no ± that could tell what is lost. */
function swingsNote({ results }: Results, series: readonly Series[], region: RegionBounds | null): string[] {
  if (!results.some(({ key }) => key === 'sd')) return [];
  const { steps, found } = windowLoss(series, region, true);
  if (found === null || found.lost < worthSaying) return [];
  return [
    `${windowsOf(steps)} ${isOne(steps) ? 'takes' : 'take'} ${shareText(found.lost)} off the swings in this region, and so off sd, min, max and range; the mean loses nothing that counts. ${adviceOn(found)}`,
  ];
}
