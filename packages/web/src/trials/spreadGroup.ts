import { type Quantity, type Summary } from '@heuristor/core';
import { type TrialRow } from './tableView';

/** Rows whose values are drawn together, with what is said of them. */
export interface SpreadGroup {
  name: string;
  rows: readonly TrialRow[];
  quantities: readonly Quantity[];
  summary: Summary;
}
