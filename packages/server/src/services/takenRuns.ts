import {
  type ConditionColumn,
  type ConditionValues,
  type Plan,
  type Run,
  columnBeside,
  planSchema,
  readPlan,
} from '@heuristor/contracts';
import { conversionBetween, parseUnit, sameName } from '@heuristor/core';
import { Failure } from '../failure';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';
import { copyRun, isWhole } from './copyRun';
import { readable } from './documents';
import { partsOfRun, readRun } from './runs';

export interface TakenRuns {
  runs: Run[];
  /** Name and plan of the investigation then: it asks for the conditions that the runs bring. */
  name: string;
  plan: Plan;
}

/**
 * Takes copies of runs of other investigations in: as they were recorded, with the conditions that they bring, and a note that says where
 * they come from. Conditions of one name are one, in the unit that is used here.
 * @param runs ids of runs that may be looked at
 * @throws Failure where one of them is not over, was removed, or is one of this investigation
 */
export async function takeRuns(investigationId: string, runs: readonly string[]): Promise<TakenRuns> {
  return RunModel.transaction(async (transaction) => {
    // The investigation's row is the lock that keeps two runs from taking one number.
    const target = await InvestigationModel.query(transaction)
      .findById(investigationId)
      .whereNull('deletedAt')
      .forUpdate()
      .throwIfNotFound();
    let plan = readable(readPlan, target.plan);
    const last = await RunModel.query(transaction).where({ investigationId }).max('number as number').first();
    let number = last?.number ?? 0;
    const taken: string[] = [];
    for (const id of runs) {
      const run = await RunModel.query(transaction).findById(id).withGraphFetched(partsOfRun);
      if (run === undefined || run.deletedAt !== null || !isWhole(run))
        throw new Failure(
          'invalid-request',
          'One of these runs is not over, or was removed. Nothing was taken in.',
        );
      if (run.investigationId === investigationId)
        throw new Failure(
          'invalid-request',
          'One of these runs is in this investigation already. Nothing was taken in.',
        );
      const source = await InvestigationModel.query(transaction)
        .findById(run.investigationId)
        .throwIfNotFound();
      const { conditions: columns } = readable(readPlan, source.plan);
      const brought = withBrought(plan.conditions, columns, run.conditions);
      plan = { ...plan, conditions: brought.columns };
      const from = `from “${source.name}”, run ${run.number}`;
      taken.push(
        await copyRun(
          run,
          {
            investigationId,
            number: ++number,
            conditions: brought.values,
            remark: (run.remark === '' ? from : `${from}. ${run.remark}`).slice(0, 2000),
            practice: false,
            planned: null,
          },
          transaction,
        ),
      );
    }
    const { error } = planSchema.safeParse(plan);
    if (error !== undefined)
      throw new Failure(
        'invalid-request',
        `These runs bring conditions that do not fit here: ${error.issues[0].message}. Nothing was taken in.`,
      );
    await InvestigationModel.query(transaction)
      .findById(investigationId)
      .patch({ plan, updatedAt: new Date() });
    return {
      name: target.name,
      plan,
      runs: await Promise.all(taken.map((id) => readRun(id, transaction))),
    };
  });
}

/** What was said of a run, under the columns that there are; what none of them is of becomes one more. */
function withBrought(
  present: readonly ConditionColumn[],
  columns: readonly ConditionColumn[],
  said: ConditionValues,
): { columns: ConditionColumn[]; values: ConditionValues } {
  const all = [...present];
  const values: ConditionValues = {};
  for (const column of columns) {
    const value = said[column.key];
    if (value === undefined) continue;
    const own = all.find((one) => isSameCondition(one, column));
    if (own !== undefined) values[own.key] = inUnitOf(value, column, own);
    else {
      const added = columnBeside(all, column);
      all.push(added);
      values[added.key] = value;
    }
  }
  return { columns: all, values };
}

const isSameCondition = (a: ConditionColumn, b: ConditionColumn): boolean =>
  sameName(a.name) === sameName(b.name) &&
  a.kind === b.kind &&
  (a.kind === 'word' || conversionBetween(parseUnit(b.unit), parseUnit(a.unit)) !== null);

function inUnitOf(
  value: ConditionValues[string],
  from: ConditionColumn,
  to: ConditionColumn,
): ConditionValues[string] {
  const conversion = 'word' in value ? null : conversionBetween(parseUnit(from.unit), parseUnit(to.unit));
  if ('word' in value || conversion === null) return value;
  const { factor, offset } = conversion;
  // Fifteen digits: what lies beyond is rounding of the conversion.
  const rounded = (number: number) => Number(number.toPrecision(15));
  return {
    value: rounded(factor * value.value + offset),
    u: value.u === null ? null : rounded(Math.abs(factor) * value.u),
  };
}
