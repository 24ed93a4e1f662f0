import { celsius, fahrenheit, intervalCelsius, intervalFahrenheit, shiftedScales } from './atoms';
import { type Unit, type UnitFactor } from './unit';

/**
 * What a temperature is: a point on a scale (20 °C), an interval between two points (5 K), or either, where its unit alone does
 * not say it (kelvin count from absolute zero, so that 300 K may be both).
 */
export type TemperatureKind = 'point' | 'interval' | 'either';

const lone = (unit: Unit): UnitFactor | null => (unit.length === 1 && unit[0].power === 1 ? unit[0] : null);

/** What a temperature in this unit is; null of any other unit, also of one in which a temperature is a factor (K/s). */
export function temperatureKind(unit: Unit): TemperatureKind | null {
  const only = lone(unit);
  switch (only?.atom) {
    case celsius:
    case fahrenheit:
      return 'point';
    case intervalCelsius:
    case intervalFahrenheit:
      return 'interval';
    case 'K':
      return only?.scale ?? 'either';
    default:
      return null;
  }
}

/** Kelvin of a point on the scale that begins at absolute zero. */
export const kelvinPoint: Unit = [{ atom: 'K', power: 1, scale: 'point' }];

/** Kelvin between two temperatures. */
export const kelvinInterval: Unit = [{ atom: 'K', power: 1, scale: 'interval' }];

/** Kelvin of which nothing says whether they are a point or an interval. */
export const kelvinEither: Unit = [{ atom: 'K', power: 1 }];

/**
 * The unit of differences of what is in a unit: K for °C, Δ°F for °F, the same unit for all that is no temperature. Standard
 * deviations, amplitudes, ranges and shifts are in it.
 */
export function intervalUnit(unit: Unit): Unit {
  switch (lone(unit)?.atom) {
    case celsius:
    case 'K':
      return kelvinInterval;
    case fahrenheit:
      return [{ atom: intervalFahrenheit, power: 1 }];
    default:
      return unit;
  }
}

/** Kelvin as a point where a unit is kelvin alone; the same unit otherwise. What a sensor of temperature reads is a point. */
export const asPoint = (unit: Unit): Unit => (temperatureKind(unit) === 'either' ? kelvinPoint : unit);

/** How far absolute zero lies below the zero of the scale of a unit, in it: 273.15 of °C; 0 of all that begins at its own zero. */
export const belowZero = (unit: Unit): number => shiftedScales[lone(unit)?.atom ?? '']?.zero ?? 0;
