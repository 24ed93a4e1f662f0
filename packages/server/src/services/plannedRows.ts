import { type PlannedRow, nextRow, openRows } from '@heuristor/contracts';
import { type Transaction } from 'objection';
import { Failure } from '../failure';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';
import { documentOf } from './documents';

/** The planned row that the next run of an investigation fills, by the trials of its owner; null of none. */
export async function findNextRow(
  investigationId: string,
  chosen: string | null,
  transaction: Transaction,
): Promise<PlannedRow | null> {
  const { ownerId } = await InvestigationModel.query(transaction).findById(investigationId).throwIfNotFound();
  let trials;
  try {
    trials = await documentOf(ownerId, investigationId, 'trials', transaction);
  } catch (error) {
    // Trials that cannot be read are in the way of no recording.
    if (error instanceof Failure && error.code === 'unreadable-document') return null;
    throw error;
  }
  if (trials === null || trials.tables.every(({ planned }) => planned.length === 0)) return null;
  const runs = await RunModel.query(transaction)
    .where({ investigationId })
    .whereNotNull('planned')
    .orderBy('number');
  const filling = runs.map(({ planned, deletedAt, practice }) => ({
    planned,
    removed: deletedAt !== null,
    practice,
  }));
  return nextRow(openRows(trials, filling), chosen);
}
