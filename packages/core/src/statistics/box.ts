import { quantileOf } from './quantile';

/** Half of some values in a box, the others beside it. */
export interface Box {
  lowerQuartile: number;
  median: number;
  upperQuartile: number;
  /** The outermost values that lie no more than 1.5 times the length of the box away from it. */
  lowerWhisker: number;
  upperWhisker: number;
  /** Those beyond, upwards. */
  beyond: number[];
}

const reach = 1.5;

/** The box of values (J. W. Tukey, Exploratory Data Analysis, 1977, with quartiles as `quantileOf`); null of none. What is not finite is left out. */
export function boxOf(values: Float64Array): Box | null {
  const sorted = values.filter(Number.isFinite).sort();
  if (sorted.length === 0) return null;
  const [lowerQuartile, median, upperQuartile] = [0.25, 0.5, 0.75].map((share) => quantileOf(sorted, share));
  const far = reach * (upperQuartile - lowerQuartile);
  const within = sorted.filter((value) => value >= lowerQuartile - far && value <= upperQuartile + far);
  return {
    lowerQuartile,
    median,
    upperQuartile,
    lowerWhisker: within[0],
    upperWhisker: within[within.length - 1],
    beyond: [...sorted].filter((value) => value < within[0] || value > within[within.length - 1]),
  };
}
