import { fromAbsoluteZero } from '../fitting/absoluteZero';
import { fitRelation } from '../fitting/fit';
import { type JointSet } from '../fitting/joint';
import { type Relation } from '../fitting/relation';
import { relationOf } from '../fitting/relations';
import { Refusal } from '../refusal';
import { type Drawn } from '../results/drawn';
import { printedUnit } from '../units/unit';
import { type Workings, isFit } from './entries';
import { type Evaluator } from './evaluate';
import { drawnCalculation } from './kinds/calculation';
import { selectionOfFit } from './kinds/fitting';
import { relationTyped } from './kinds/formulaFit';

// What is asked of an entry now and then, beside what it says at all times.

/** What many draws say of a result by a formula, beside first order. @throws Refusal */
export function drawnIn(evaluator: Evaluator, workings: Workings, id: string, count: number): Drawn {
  const entry = workings.entries.find((one) => one.id === id);
  if (entry?.kind !== 'calculation') throw new Refusal('Only a result by a formula can be drawn.');
  return drawnCalculation(entry, evaluator.asking(workings), count);
}

/** What an entry fits: the relation, and the readings of all its regions, with the units that they are in. @throws Refusal */
export function fittedIn(
  evaluator: Evaluator,
  workings: Workings,
  id: string,
): { relation: Relation; points: JointSet; units: string } {
  const entry = workings.entries.find((one) => one.id === id);
  if (entry === undefined || !isFit(entry)) throw new Refusal('This entry is no fit any more.');
  const context = evaluator.asking(workings);
  const { selection, series, against } = selectionOfFit(entry, context);
  const plain = entry.kind === 'fit' ? relationOf(entry.relation) : relationTyped(entry, context).relation;
  const relation = fromAbsoluteZero(plain, { x: against.unit, y: series.unit });
  const { parameters, covariance, degreesOfFreedom, residualStandardDeviation } = fitRelation(
    relation,
    selection,
    selection,
    { finite: true },
  );
  return {
    relation,
    points: {
      x: selection.x.slice(),
      y: selection.y.slice(),
      fit: { parameters, covariance, degreesOfFreedom, residualStandardDeviation },
    },
    units: `${series.symbol} in ${printedUnit(series.unit)} against ${against.symbol} in ${printedUnit(against.unit)}`,
  };
}
