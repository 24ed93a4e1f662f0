import { type Quantity } from '../results/quantity';
import { scaledSpan } from '../series/noisePath';
import { canConvert, conversionFactor } from '../units/conversion';
import { type Unit, sameUnit } from '../units/unit';
import { measured } from '../formula/dimension';
import { temperatureKind } from '../units/temperature';

/** A value in another unit, with all that moves it; null where it cannot be brought into that one. */
export function inUnit(quantity: Quantity, unit: Unit): Quantity | null {
  const from = quantity.unit;
  if (sameUnit(from, unit)) return quantity;
  if (from.length === 0 || unit.length === 0) return null;
  const kinds = [temperatureKind(from), temperatureKind(unit)];
  const isPoint = kinds[0] === 'point' && kinds[1] === 'point';
  if (!isPoint && (kinds.includes('point') || !canConvert(from, unit))) return null;
  const [a, b] = [measured(from), measured(unit)];
  const factor = isPoint ? a.factor / b.factor : conversionFactor(from, unit);
  const { standardUncertainty } = quantity;
  return {
    ...quantity,
    value: isPoint ? factor * (quantity.value + a.zero) - b.zero : factor * quantity.value,
    unit,
    standardUncertainty: standardUncertainty === null ? null : Math.abs(factor) * standardUncertainty,
    influences: () =>
      quantity.influences().map((one) => ({ ...one, effect: scaledSpan(one.effect, factor) })),
  };
}
