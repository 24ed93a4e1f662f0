import { type FittedPoints } from '../fitting/covariance';
import { type FitPoints } from '../fitting/relation';

/** The readings of a series that lie in a region, paired with another series. */
export interface Selection extends FitPoints, FittedPoints {
  /** Readings in the region that are missing in either series, but for those that were set aside. */
  missing: number;
  /** Readings in the region that a person has set aside. */
  aside: number;
  /** Whether its values were taken one by one, and are no readings in time. */
  isSingle: boolean;
  first: number;
  past: number;
}
