import { type Series } from '../series/series';
import { divideUnits } from '../units/unit';
import { localPolynomialFilter } from './filter';

const derivedQuantity: Readonly<Record<string, string>> = {
  position: 'velocity',
  velocity: 'acceleration',
  angle: 'angular velocity',
  'angular velocity': 'angular acceleration',
};

export interface DerivativeOptions {
  symbol: string;
  /** Odd number of readings the local polynomial is laid through. */
  windowPoints: number;
  /** 1, or 2 for the derivative of the derivative. */
  order?: 1 | 2;
  /** Degree of the local polynomial; a parabola where nothing is said. */
  degree?: number;
}

/**
 * The derivative of a series with respect to its abscissa: slope, or bend, of the least-squares polynomial through the window
 * around each reading (Savitzky and Golay 1964; ends by the polynomial of the first and last full window, Gorry 1990).
 * Unit: that of the values over that of the abscissa, once or twice.
 * @param before the derivative of an earlier, shorter state of the same series, which is gone on with
 * @throws Refusal where the series is shorter than the window, or its times are no times
 */
export function derivative(
  series: Series,
  { symbol, windowPoints, order = 1, degree = 2 }: DerivativeOptions,
  before?: Series,
): Series {
  const once = (quantity: string) => derivedQuantity[quantity] ?? `rate of ${quantity}`;
  const first = divideUnits(series.unit, series.timeUnit);
  return {
    ...localPolynomialFilter(series, symbol, { windowPoints, degree, order }, before),
    symbol,
    quantity: order === 1 ? once(series.quantity) : once(once(series.quantity)),
    unit: order === 1 ? first : divideUnits(first, series.timeUnit),
    timeUnit: series.timeUnit,
    sampling: series.sampling,
  };
}
