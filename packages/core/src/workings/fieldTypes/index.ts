import { anchor } from './anchor';
import { choice } from './choice';
import { flag } from './flag';
import { formula } from './formula';
import { integer } from './integer';
import { number } from './number';
import { ownIntervals } from './ownIntervals';
import { parameters } from './parameters';
import { region } from './region';
import { regions } from './regions';
import { result } from './result';
import { series } from './series';
import { text } from './text';

/** Every type of fields, a line each. */
export const fieldTypes = {
  series,
  region,
  regions,
  choice,
  integer,
  number,
  flag,
  text,
  result,
  formula,
  parameters,
  anchor,
  ownIntervals,
} as const;
