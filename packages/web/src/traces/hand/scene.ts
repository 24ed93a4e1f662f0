import { type SeriesRef, type Unit } from '@heuristor/core';
import { type PointQuestion, type Sight } from '../../workers/protocol';
import { ofAxis } from '../axes/axisScale';
import { type PanelPlot, valueIn } from '../axes/panelPlot';
import { type DrawnTrace } from '../drawn';
import { valueAtPixel } from '../geometry';
import { type Place } from './place';

/** What a hand that drags over the traces does there; the usual one marks regions. */
export type HandMode = 'usual' | 'circle' | 'shift';

/** A trace with where its plot lies, in pixels from the top of the traces. */
export interface PlacedTrace {
  trace: Pick<DrawnTrace, 'key' | 'reference' | 'unit' | 'low' | 'high' | 'isLogarithmic'>;
  plot: PanelPlot;
}

/** What lies under a hand at the moment in which it does something. Places are in pixels from the upper left corner of the plots. */
export interface Scene {
  /** The part of the horizontal axis that is drawn, and the one that is wanted, which may not be drawn yet. */
  sight: Sight;
  wantedSight: Sight;
  /** Of the plots, in pixels. */
  width: number;
  /** What stands along: `t`, or a quantity. */
  horizontal: SeriesRef;
  horizontalUnit: Unit;
  mode: HandMode;
  /** By how much the run in front was moved in time, in seconds; null where there is no run. */
  shift: number | null;
  /** Vertical axes that a hand has set, by trace and side. */
  scales: Readonly<Record<string, Sight>>;
  /** The trace at a height; null between and beside the traces. */
  traceAt(y: number): PlacedTrace | null;
}

/** Pixels from the pointer within which a point of a plot is meant. */
const nearReach = 40;

/** What a plot of one quantity against another is asked for the point nearest to a place; null where there is no such plot. */
export function questionAt(place: Place, scene: Scene): PointQuestion | null {
  const { sight, width, horizontal } = scene;
  const found = scene.traceAt(place.y);
  if (found === null || found.trace.reference === null) return null;
  const { trace, plot } = found;
  return {
    of: trace.reference as SeriesRef,
    along: horizontal,
    units: { x: scene.horizontalUnit, y: trace.unit },
    place: { x: valueAtPixel(place.x, sight, width), y: valueIn(plot, place.y, trace) },
    axes: { x: { ...sight, pixels: width }, y: { ...ofAxis(trace), pixels: plot.height } },
    reach: nearReach,
  };
}
