import { cbrt, log10, pow } from '../elementary';
import { Refusal } from '../refusal';
import { quantileOf } from './quantile';
import { stepOf } from './steps';

/** How wide the bins of a histogram are. */
export type BinRule = 'spread' | 'root' | 'typed';

export interface Histogram {
  /** Ends of the bins, one more than there are bins; a bin holds its lower end. */
  edges: Float64Array;
  counts: Float64Array;
  width: number;
  /** Width by the rule, before it was rounded. */
  ruled: number;
  /** The step in which the values come, where they come in steps; null otherwise. */
  step: number | null;
}

const mostBins = 2000;
/** By a rule there are no more than about so many: one far value is not to make thousands. */
const fewerBins = 1000;
/** A value this share of a bin below its lower end is taken to lie on it: values are not stored to the last decimal. */
const slack = 1e-6;

/**
 * Counts values in bins of equal width. By their spread: 2 × interquartile range / ∛n (D. Freedman and P. Diaconis, Z.
 * Wahrscheinlichkeitstheorie 57 (1981) 453); by the root: range / √n (common practice, no source). The width is then rounded to
 * 1, 2 or 5 times a power of ten, and where values come in steps it is a whole number of these, with the values in the middle of
 * their bins.
 * @param typed width of the bins where a person has typed it
 * @throws Refusal where there is no value, or a typed width makes no or too many bins
 */
export function histogramOf(values: Float64Array, rule: BinRule, typed = 0): Histogram {
  const sorted = values.filter(Number.isFinite).sort();
  const count = sorted.length;
  if (count === 0) throw new Refusal('There is no reading in this region. Move it to where the trace is.');
  const [low, high] = [sorted[0], sorted[count - 1]];
  const range = high - low;
  const step = stepOf(sorted);
  const ruled = rule === 'typed' ? typed : widthBy(rule, sorted, range);
  if (rule === 'typed' && !(typed > 0))
    throw new Refusal('The width of the bins is no length. Type one above 0, in the unit of the readings.');
  let width = ruled;
  if (rule !== 'typed') {
    width = rounded(ruled);
    if (step !== null) width = Math.max(Math.round(ruled / step), 1) * step;
  }
  const isInSteps = step !== null && Math.abs(width / step - Math.round(width / step)) < slack;
  // Values that come in steps stand in the middle of their bins; others count from multiples of the width.
  const first = isInSteps ? low - step / 2 : Math.floor(low / width + slack) * width;
  const bins = Math.max(Math.floor((high - first) / width + slack) + 1, 1);
  if (bins > mostBins)
    throw new Refusal(
      `Bins of ${width} make ${bins} of them. Type a width above ${Number((range / mostBins).toPrecision(2))}.`,
    );
  const counts = new Float64Array(bins);
  for (const value of sorted) counts[Math.min(Math.floor((value - first) / width + slack), bins - 1)]++;
  return {
    edges: Float64Array.from({ length: bins + 1 }, (_, i) => first + i * width),
    counts,
    width,
    ruled,
    step,
  };
}

function widthBy(rule: 'spread' | 'root', sorted: Float64Array, range: number): number {
  const count = sorted.length;
  const byRoot = range / Math.sqrt(count);
  const bySpread = (2 * (quantileOf(sorted, 0.75) - quantileOf(sorted, 0.25))) / cbrt(count);
  const width = rule === 'spread' && bySpread > 0 ? Math.max(bySpread, range / fewerBins) : byRoot;
  // Values that are all the same fill one bin, of any width.
  return width > 0 ? width : Math.max(Math.abs(sorted[0]) / 100, Number.MIN_VALUE * 2 ** 60);
}

/** The nearest of 1, 2 and 5 times a power of ten. */
function rounded(width: number): number {
  const power = Math.floor(log10(width));
  const lead = width / pow(10, power);
  const round = lead < Math.SQRT2 ? 1 : lead < Math.sqrt(10) ? 2 : lead < Math.sqrt(50) ? 5 : 10;
  // 10^-3 is not a decimal fraction to the last bit, 1 / 10^3 is.
  return power < 0 ? round / pow(10, -power) : round * pow(10, power);
}
