import { type Series } from '../series/series';
import { divideUnits } from '../units/unit';
import { localPolynomialFilter } from './filter';

const derivedQuantity: Record<string, string> = {
  position: 'velocity',
  velocity: 'acceleration',
  angle: 'angular velocity',
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
 * @throws Refusal where the series is shorter than the window
 */
export function derivative(series: Series, { symbol, windowPoints }: DerivativeOptions): Series {
  const { values, noise } = localPolynomialFilter(series, { windowPoints, degree: 2, order: 1 });
  return {
    symbol,
    quantity: derivedQuantity[series.quantity] ?? `rate of ${series.quantity}`,
    unit: divideUnits(series.unit, series.timeUnit),
    times: series.times,
    timeUnit: series.timeUnit,
    interval: series.interval,
    values,
    noise,
  };
}
