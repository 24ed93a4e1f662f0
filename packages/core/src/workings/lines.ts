import { type RelationKey } from '../fitting/relations';

/**
 * What a line of the workings can speak about: the abscissa of the run ("t": time, or the number of the reading), one of its
 * channels, or a series that another line derives. A reference names a channel, never a run, so it holds for every run.
 */
export type SeriesRef = 't' | `channel:${string}` | `line:${string}`;

interface LineBase {
  id: string;
  /** What people call this line; a derived series is known by this symbol. */
  name: string;
}

/** A stretch of one axis, lettered A, B, C … */
export interface RegionLine extends LineBase {
  kind: 'region';
  letter: string;
  along: SeriesRef;
  start: number;
  end: number;
}

export interface DerivativeLine extends LineBase {
  kind: 'derivative';
  of: SeriesRef;
  windowPoints: number;
}

export interface IntegralLine extends LineBase {
  kind: 'integral';
  of: SeriesRef;
}

interface OnRegion extends LineBase {
  /** Id of a region line; null for the whole run. */
  region: string | null;
  of: SeriesRef;
}

export interface StatisticsLine extends OnRegion {
  kind: 'statistics';
}

export interface SlopeLine extends OnRegion {
  kind: 'slope';
  against: SeriesRef;
}

export interface AreaLine extends OnRegion {
  kind: 'area';
  against: SeriesRef;
}

export interface FitLine extends OnRegion {
  kind: 'fit';
  relation: RelationKey;
  against: SeriesRef;
  showResiduals: boolean;
}

export type Line =
  RegionLine | DerivativeLine | IntegralLine | StatisticsLine | SlopeLine | AreaLine | FitLine;

/** The sheet of lines that belongs to an investigation, in the order in which people read it. */
export interface Workings {
  lines: Line[];
}

export const channelRef = (key: string): SeriesRef => `channel:${key}`;
export const lineRef = (id: string): SeriesRef => `line:${id}`;
