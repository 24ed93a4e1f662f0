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
  /** Odd number of readings the local parabola is laid through. */
  windowPoints: number;
}

/**
 * The derivative of a series with respect to its abscissa: slope of the least-squares parabola through the window around
 * each reading (Savitzky and Golay 1964; ends by the parabola of the first and last full window, Gorry 1990).
 * Unit: that of the values over that of the abscissa.
 * @param before the derivative of an earlier, shorter state of the same series, which is gone on with
 * @throws Refusal where the series is shorter than the window, or its times are no times
 */
export function derivative(
  series: Series,
  { symbol, windowPoints }: DerivativeOptions,
  before?: Series,
): Series {
  return {
    ...localPolynomialFilter(series, symbol, { windowPoints, degree: 2, order: 1 }, before),
    symbol,
    quantity: derivedQuantity[series.quantity] ?? `rate of ${series.quantity}`,
    unit: divideUnits(series.unit, series.timeUnit),
    timeUnit: series.timeUnit,
    sampling: series.sampling,
  };
}
