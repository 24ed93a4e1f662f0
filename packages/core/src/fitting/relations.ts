import { approach } from './models/approach';
import { cubic } from './models/cubic';
import { dampedSine } from './models/dampedSine';
import { decay } from './models/decay';
import { gaussian } from './models/gaussian';
import { inverse } from './models/inverse';
import { inverseCube } from './models/inverseCube';
import { inverseSquare } from './models/inverseSquare';
import { line } from './models/line';
import { logarithm } from './models/logarithm';
import { parabola } from './models/parabola';
import { power } from './models/power';
import { proportional } from './models/proportional';
import { resonance } from './models/resonance';
import { sine } from './models/sine';
import { sineOnLine } from './models/sineOnLine';
import { squareRoot } from './models/squareRoot';
import { type Relation } from './relation';

/** Every relation that can be fitted, by its key, in the order of menus. */
export const relations = {
  line,
  proportional,
  parabola,
  cubic,
  power,
  squareRoot,
  inverse,
  inverseSquare,
  inverseCube,
  decay,
  approach,
  logarithm,
  sine,
  dampedSine,
  sineOnLine,
  gaussian,
  resonance,
} satisfies Record<string, Relation>;

export type RelationKey = keyof typeof relations;

export const relationKeys = Object.keys(relations) as [RelationKey, ...RelationKey[]];

/** A relation by its key. */
export const relationOf = (key: RelationKey): Relation => relations[key];
