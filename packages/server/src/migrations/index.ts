import { type Knex } from 'knex';
import * as first from './001-first';
import * as firmGround from './002-firm-ground';
import * as plainBlocks from './003-plain-blocks';
import * as sensors from './004-sensors';
import * as conditions from './005-conditions';
import * as edges from './006-edges';
import * as spots from './007-spots';
import * as away from './008-away';
import * as deviceTokens from './009-device-tokens';
import * as templates from './010-templates';
import * as timeZone from './011-time-zone';
import * as underWay from './012-under-way';
import * as actors from './013-actors';
import * as documents from './014-documents';
import * as evaluations from './015-evaluations';
import * as looks from './016-looks';
import * as processes from './017-processes';
import * as plannedRows from './018-planned-rows';
import * as templateTrials from './019-template-trials';
import * as notebooks from './020-notebooks';
import * as guides from './021-guides';
import * as films from './022-films';
import * as themes from './023-themes';

const migrations: Record<string, Knex.Migration> = {
  '001-first': first,
  '002-firm-ground': firmGround,
  '003-plain-blocks': plainBlocks,
  '004-sensors': sensors,
  '005-conditions': conditions,
  '006-edges': edges,
  '007-spots': spots,
  '008-away': away,
  '009-device-tokens': deviceTokens,
  '010-templates': templates,
  '011-time-zone': timeZone,
  '012-under-way': underWay,
  '013-actors': actors,
  '014-documents': documents,
  '015-evaluations': evaluations,
  '016-looks': looks,
  '017-processes': processes,
  '018-planned-rows': plannedRows,
  '019-template-trials': templateTrials,
  '020-notebooks': notebooks,
  '021-guides': guides,
  '022-films': films,
  '023-themes': themes,
};

/** The migrations in order, kept in code so that no path on a disk matters. */
export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(migrations).sort()),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(migrations[name]),
};
