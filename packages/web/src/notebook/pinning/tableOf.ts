import { type TrialTable } from '@heuristor/contracts';
import { type SheetSession } from '../../investigation/sheetSession';

/** The table that a sheet of trials shows; none of another sheet. */
export const tableOf = (sheet: SheetSession): TrialTable | undefined =>
  'shownTable' in sheet ? (sheet.shownTable as TrialTable | undefined) : undefined;
