import {
  type GivenCells,
  type GivenColumn,
  type Run,
  type Spot,
  type SpotCell,
  type SpotColumn,
  type SpotPatch,
  channelOf,
  mostSpotRows,
} from '@heuristor/contracts';
import { parseUnit, ucumCode } from '@heuristor/core';
import { type Transaction } from 'objection';
import { Failure } from '../failure';
import { ChannelModel } from '../models/channel';
import { RunModel } from '../models/run';
import { SpotModel } from '../models/spot';
import { readRun } from './runs';

/** A run that is taken reading by reading. @throws Failure */
export async function findSeries(runId: string): Promise<Run & { spot: Spot }> {
  const run = await readRun(runId);
  const { spot } = run;
  if (spot === null)
    throw new Failure(
      'invalid-request',
      `${run.name} was recorded against time; it takes no single readings.`,
    );
  return { ...run, spot };
}

/** What was given, as far as it belongs to the columns; numbers for numbers, words for words. @throws Failure */
export function givenFor(columns: readonly SpotColumn[], cells: GivenCells): GivenCells {
  return Object.fromEntries(
    Object.entries(cells).map(([key, cell]) => {
      const column = columns.find((candidate) => candidate.key === key);
      if (column === undefined || column.kind === 'measured')
        throw new Failure('invalid-request', `This series has no column ${key} that is typed.`);
      if ((column.kind === 'typed') !== 'typed' in cell)
        throw new Failure(
          'invalid-request',
          `${column.name} is a ${column.kind === 'typed' ? 'number' : 'word'}; type one.`,
        );
      return [key, cell];
    }),
  );
}

async function changed(runId: string, transaction: Transaction): Promise<void> {
  await RunModel.query(transaction).findById(runId).patch({ preview: null });
}

/** Adds readings to a series. @throws Failure where it has as many as it can have */
export async function addRows(runId: string, rows: readonly Record<string, SpotCell>[]): Promise<Run> {
  await RunModel.transaction(async (transaction) => {
    // The run's row is the lock that keeps two screens from adding beyond the end together.
    const found = await RunModel.query(transaction).findById(runId).forUpdate();
    if (found === undefined) throw new Failure('not-found', 'There is no such run.');
    const count = await SpotModel.query(transaction).where({ runId }).resultSize();
    if (count + rows.length > mostSpotRows)
      throw new Failure(
        'too-large',
        `A series holds ${mostSpotRows} readings, removed ones included; this one has ${count}. Begin a new series.`,
      );
    await SpotModel.query(transaction).insert(rows.map((cells) => ({ runId, cells })));
    await changed(runId, transaction);
  });
  return readRun(runId);
}

/** Changes what was typed of a reading, drops it or puts it back. What was read is never changed. @throws Failure */
export async function changeRow(runId: string, rowId: number, { cells, removed }: SpotPatch): Promise<Run> {
  const { spot } = await findSeries(runId);
  await RunModel.transaction(async (transaction) => {
    const row = await SpotModel.query(transaction).where({ id: rowId, runId }).first().forUpdate();
    if (row === undefined) throw new Failure('not-found', 'There is no such reading in this series.');
    await SpotModel.query(transaction)
      .findById(rowId)
      .patch({
        ...(cells === undefined ? {} : { cells: { ...row.cells, ...givenFor(spot.columns, cells) } }),
        ...(removed === undefined ? {} : { removedAt: removed ? new Date() : null }),
      });
    await changed(runId, transaction);
  });
  return readRun(runId);
}

/**
 * Changes the columns of a series that are typed: names, units and offsets, and new ones. One that holds something stays.
 * @throws Failure
 */
export async function changeColumns(runId: string, given: readonly GivenColumn[]): Promise<Run> {
  const { spot, channels } = await findSeries(runId);
  const measured = spot.columns.filter(({ kind }) => kind === 'measured');
  for (const column of spot.columns) {
    if (column.kind === 'measured') continue;
    const isKept = given.some(({ key, kind }) => key === column.key && kind === column.kind);
    if (!isKept && spot.rows.some(({ cells }) => column.key in cells))
      throw new Failure(
        'invalid-request',
        `${column.name} holds what was typed. Begin a new series for other columns.`,
      );
  }
  const clash = given.find(({ key }) => measured.some((column) => column.key === key));
  if (clash !== undefined)
    throw new Failure('invalid-request', `${clash.key} is measured here. Give the column another symbol.`);
  const columns: SpotColumn[] = [...given, ...measured];
  await RunModel.transaction(async (transaction) => {
    await RunModel.query(transaction)
      .findById(runId)
      .patch({ spot: { seconds: spot.seconds, columns }, preview: null });
    const keys = new Set(columns.map(({ key }) => key));
    for (const { id, key } of channels)
      if (!keys.has(key)) await ChannelModel.query(transaction).deleteById(id);
    let position = 0;
    for (const column of columns) {
      if (column.kind === 'word') continue;
      const known = channels.find(({ key }) => key === column.key);
      const named =
        column.kind === 'typed' ? { quantity: column.name, unit: ucumCode(parseUnit(column.unit)) } : {};
      if (known !== undefined)
        await ChannelModel.query(transaction)
          .findById(known.id)
          .patch({ position, ...named });
      else if (column.kind === 'typed')
        await ChannelModel.query(transaction).insert({
          ...channelOf({
            key: column.key,
            symbol: column.key,
            quantity: column.name,
            unit: ucumCode(parseUnit(column.unit)),
            timeUnit: '1',
            sampling: { kind: 'regular', start: 1, interval: 1 },
          }),
          runId,
          position,
        });
      position++;
    }
  });
  return readRun(runId);
}
