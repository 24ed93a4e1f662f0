import {
  type Dimension,
  addDimensions,
  measured,
  productUnit,
  sameDimension,
  scaleDimension,
} from '../../formula/dimension';
import { temperatureKind } from '../../units/temperature';
import { type Unit, powerOfUnit } from '../../units/unit';

/** Powers of the units of both axes that together have a dimension, small ones first; null where none have. */
export function axisPowers(dimension: Dimension, x: Unit, y: Unit): { x: number; y: number } | null {
  const [across, up] = [measured(x).dimension, measured(y).dimension];
  for (const byX of [0, 1, -1, 2, -2, 3, -3, 0.5, -0.5])
    for (const byY of [0, 1, -1, 2, -2])
      if (sameDimension(addDimensions(scaleDimension(up, byY), across, byX), dimension))
        return { x: byX, y: byY };
  return null;
}

/** A unit in terms of those of the axes, where it can be written in them: cm/s rather than m/s where y is in cm. */
export function unitInAxes(unit: Unit, x: Unit, y: Unit): Unit {
  if (temperatureKind(unit) !== null) return unit;
  const powers = axisPowers(measured(unit).dimension, x, y);
  return powers === null ? unit : productUnit(powerOfUnit(y, powers.y), x, powers.x);
}
