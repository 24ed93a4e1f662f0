import { area } from './area';
import { combination } from './combination';
import { constant } from './constant';
import { derivative } from './derivative';
import { fit } from './fit';
import { integral } from './integral';
import { region } from './region';
import { slope } from './slope';
import { statistics } from './statistics';

/** Every kind of entry there is, in the order in which they are offered. */
export const kinds = {
  region,
  derivative,
  integral,
  statistics,
  slope,
  area,
  fit,
  constant,
  combination,
};

export type Kinds = typeof kinds;
