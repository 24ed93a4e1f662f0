import { fitRelation } from '../../fitting/fit';
import { type Fit } from '../../fitting/fitted';
import { type Scatter, scatterOf } from '../../fitting/scatter';
import { type ParameterName, type Relation } from '../../fitting/relation';
import { fromAbsoluteZero, liftedAxes } from '../../fitting/absoluteZero';
import { countedFrom, originFor } from '../../fitting/fromOrigin';
import { Refusal } from '../../refusal';
import { belowZero } from '../../units/temperature';
import { printedUnit } from '../../units/unit';
import { type Influence, type Quantity, merged, withShared } from '../../results/quantity';
import { atTimesOf } from '../../series/atTimesOf';
import { type Series, type SharedEffect, sharedAt } from '../../series/series';
import { type PointUncertainties } from '../../fitting/weighted';
import { choiceField, flagField, later, regionsField } from '../fields';
import { type Context } from '../kind';
import { type NamedResult } from '../outcome';
import { type SeriesRef } from '../references';
import { joined, leftOutNotes, reachNote, select } from '../selection';
import { type Selection } from '../selected';
import { movedTogether } from '../weighed';

export interface FittedSelection {
  fit: Fit;
  names: ParameterName[];
  selection: Selection;
  series: Series;
  against: Series;
  /** From where the axis counts in the relation; null where from its own zero. */
  origin: number | null;
  notes: string[];
  /** What takes long to tell; null while a hand moves. */
  atRest: string[] | null;
}

interface FittedEntry {
  of: SeriesRef;
  against: SeriesRef;
  region: string | null;
  also?: readonly string[];
}

/** The readings of `of` against `against` in a region and in others. @throws Refusal */
export function selectionOfFit(entry: FittedEntry, context: Context) {
  const series = context.series(entry.of);
  const plain = context.series(entry.against, series);
  const against = atTimesOf(plain, series);
  if (plain === series)
    throw new Refusal(
      `${series.symbol} against itself is a straight line whatever it does. Choose another quantity for the axis.`,
    );
  const region = context.region(entry.region);
  const others = entry.region === null ? [] : (entry.also ?? []).filter((id) => id !== entry.region);
  const selection = joined(
    [region, ...others.map((id) => context.region(id))].map((bounds) =>
      select(context, series, entry.against, bounds),
    ),
  );
  return { series, against, region, selection };
}

/** Fits a relation to the readings of `of` against `against` in a region. @throws Refusal */
export function fitInRegion(
  plain: Relation,
  entry: FittedEntry & { weights?: 'equal' | 'own' | 'relative' },
  context: Context,
): FittedSelection {
  const { series, against, region, selection } = selectionOfFit(entry, context);
  const units = { x: against.unit, y: series.unit };
  const relation = fromAbsoluteZero(plain, units);
  const { before, moving } = context;
  const earlier = before?.kind === 'results' ? before.fitted : null;
  const near = moving && earlier !== null && earlier.relation === relation.key ? earlier.parameters : null;
  const { weights = 'equal' } = entry;
  const uncertainties =
    weights === 'equal'
      ? undefined
      : weights === 'own'
        ? ownUncertainties(series, against, selection)
        : // Of ratios the scatter tells the size, and it shows nothing of what all points owe to one source.
          { ...ownUncertainties(series, against, selection), together: [], isRelative: true };
  const fitFrom = (from: number | null) =>
    fitRelation(from === null ? relation : countedFrom(relation, from), selection, selection, {
      near,
      moving,
      finite: true,
      scatter: scatterIn(selection),
      ...(uncertainties === undefined ? {} : { uncertainties }),
    });
  const isMovable = relation.movable === true && entry.against === 't';
  const far = isMovable ? originFor(selection) : null;
  const rough = fitFrom(far);
  // What has fallen for long before the region has no size at the zero of the axis.
  const isTooFar = isMovable && far === null && !rough.parameters.every(Number.isFinite);
  const origin = isTooFar ? selection.x[0] : far;
  const fit = isTooFar ? fitFrom(origin) : rough;
  const names = relation.parameterNames({
    xUnit: against.unit,
    yUnit: series.unit,
    xQuantity: against.quantity,
    yQuantity: series.quantity,
    xSymbol: against.symbol,
    ySymbol: series.symbol,
  });
  const unit = printedUnit(against.unit);
  const notes = [
    ...(origin === null
      ? []
      : [
          `${against.symbol} counts from ${Number(origin.toPrecision(12))}${unit === '' ? '' : ` ${unit}`} in this fit, the beginning of the region; what is said of 0 holds there.`,
        ]),
    ...liftedAxes(plain, units).map((axis) => {
      const { symbol, unit: scale } = axis === 'x' ? against : series;
      const zero = `−${belowZero(scale)} ${printedUnit(scale)}`;
      return `${symbol} counts from absolute zero (${zero}) in this relation, as in a formula.`;
    }),
    ...leftOutNotes(selection, fit.count),
    ...reachNote(series, region),
    ...(fit.correctedShift > 0.2
      ? [
          `The noise of ${against.symbol} alone would have shifted this by ${fit.correctedShift.toPrecision(2)} times its uncertainty; that is corrected.`,
        ]
      : []),
  ];
  const atRest = moving ? null : [...fit.remarks];
  return { fit, names, selection, series, against, origin, notes, atRest };
}

/** Fits on one region ask for the same; a selection is never changed. */
const scatters = new WeakMap<Selection, Scatter>();

function scatterIn(selection: Selection): Scatter {
  let found = scatters.get(selection);
  if (found === undefined) scatters.set(selection, (found = scatterOf(selection.y)));
  return found;
}

/** The uncertainties of the points that were picked. @throws Refusal where the values have none of their own */
function ownUncertainties(
  { symbol, noise, uncertainties, shared, beside }: Series,
  against: Series,
  { indices }: Selection,
): PointUncertainties {
  if (uncertainties === undefined)
    throw new Refusal(
      `The values of ${symbol} have no uncertainties of their own, point by point. Let all points count alike.`,
    );
  const picked = (all: Float64Array) => Float64Array.from(indices, (index) => all[index]);
  const at = (one: SharedEffect) => Float64Array.from(indices, (index) => sharedAt(one, index));
  const across = against.uncertainties === undefined ? [] : (against.shared ?? []);
  // Numbers that come from the readings of one root by weights of their own have other parts of it.
  const alsoAcross = ({ root, by }: SharedEffect) =>
    by === undefined ? across.find((one) => one.root === root && one.by === undefined) : undefined;
  const matched = new Set(shared?.map(alsoAcross));
  const together = [
    ...(shared ?? []).map((one) => {
      const other = alsoAcross(one);
      return { y: at(one), x: other === undefined ? null : at(other) };
    }),
    ...across.filter((one) => !matched.has(one)).map((one) => ({ y: null, x: at(one) })),
  ];
  // A column that was worked out from another one goes with what stands beside that no more.
  const isPlain = noise?.independent === true && against.noise?.independent === true;
  const both = isPlain ? beside?.get(against.noise.root.key) : undefined;
  return {
    y: picked(uncertainties).map((u) => (u > 0 ? u : 0)),
    x: against.uncertainties === undefined ? null : picked(against.uncertainties).map((u) => (u > 0 ? u : 0)),
    ...(together.length === 0 ? {} : { together }),
    ...(both === undefined ? {} : { both: picked(both).map((covariance) => covariance || 0) }),
  };
}

/** What is drawn of a fit beside its curve, and further regions whose readings count as well. */
export const drawnFields = {
  showBand: later(flagField('Show the band of further readings')),
  showCurveBand: later(flagField('Show the band of the curve')),
  bandsHold: later(
    choiceField('Bands hold', [
      { key: '68', title: '68 of 100' },
      { key: '95', title: '95 of 100' },
    ]),
  ),
  showBeyond: later(flagField('Show it beyond its region')),
  also: later(regionsField('Also in')),
} as const;

/** How the points count. */
export const weightsField = choiceField('Points count', [
  { key: 'equal', title: 'all alike' },
  { key: 'own', title: 'by their uncertainties' },
  { key: 'relative', title: 'by the ratios of their uncertainties' },
]);

/** One parameter of a fit as a result: uncertain by the scatter about the fit, and by what moves all its values together. */
export function parameterResult(
  fitted: FittedSelection,
  i: number,
  further: readonly SharedEffect[] = [],
): NamedResult {
  const { fit, names } = fitted;
  const { key, name, unit, main } = names[i];
  const shared = [
    ...sharedInfluences(fitted, i),
    ...further.map((one) => movedTogether(one, fitted.fit.movedBy(i, one.effect, null))),
  ];
  const own = {
    standardUncertainty: fit.standardUncertainties[i],
    degreesOfFreedom: fit.degreesOfFreedom,
    influences: () => fit.influencesOn(i),
  };
  const known = withShared(own, shared);
  const u = known.standardUncertainty;
  const isKnown = u !== null && Number.isFinite(u) && u > 0;
  const quantity: Quantity = {
    value: fit.parameters[i],
    unit,
    ...known,
    // What stands at a bound, or where all points lie on the curve, has none; nor has what too few readings tell nothing about.
    standardUncertainty: isKnown ? u : null,
    influences: () => (u !== null && Number.isNaN(u) ? [] : merged([...own.influences(), ...shared])),
  };
  return { key, name, quantity, roundTo: null, main };
}

/** What moves all values that were fitted, or all places, together, followed to a parameter. */
function sharedInfluences(
  { fit, series, against, selection }: FittedSelection,
  parameter: number,
): Influence[] {
  if (series.shared === undefined && against.shared === undefined) return [];
  const { indices } = selection;
  const picked = ({ effect }: SharedEffect) => Float64Array.from(indices, (index) => effect[index]);
  const still = new Float64Array(indices.length);
  const byValues = (one: SharedEffect) =>
    one.uniform === undefined
      ? fit.movedBy(parameter, picked(one), null)
      : fit.movedEvenly(parameter, one.uniform);
  return [
    ...(series.shared ?? []).map((one) => movedTogether(one, byValues(one))),
    ...(against.shared ?? []).map((one) => movedTogether(one, fit.movedBy(parameter, still, picked(one)))),
  ];
}
