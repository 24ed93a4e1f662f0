import { type Series } from '../series/series';
import { type RegionLine, type SeriesRef } from './lines';

/** What a kind of line may ask of the run and the other lines. */
export interface Context {
  /** @throws Refusal where the run has no such channel, or the line behind it is missing or refused */
  series(reference: SeriesRef, like?: Series): Series;
  /** @throws Refusal where the region was removed */
  region(id: string | null): RegionLine | null;
}
