import { line } from './models/line';
import { parabola } from './models/parabola';
import { sine } from './models/sine';
import { type Relation } from './relation';

/** Every relation that can be fitted, by its key. */
export const relations = { line, parabola, sine } satisfies Record<string, Relation>;

export type RelationKey = keyof typeof relations;

export const relationKeys = Object.keys(relations) as [RelationKey, ...RelationKey[]];

/** A relation by its key. */
export const relationOf = (key: RelationKey): Relation => relations[key];
