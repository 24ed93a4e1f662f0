import { line } from './models/line';
import { parabola } from './models/parabola';
import { sine } from './models/sine';
import { sineOnLine } from './models/sineOnLine';
import { type Relation } from './relation';

/** Every relation that can be fitted, by its key, in the order of menus. */
export const relations = { line, parabola, sine, sineOnLine } satisfies Record<string, Relation>;

export type RelationKey = keyof typeof relations;

export const relationKeys = Object.keys(relations) as [RelationKey, ...RelationKey[]];

/** A relation by its key. */
export const relationOf = (key: RelationKey): Relation => relations[key];
