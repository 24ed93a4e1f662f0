import { type Run } from '@heuristor/contracts';
import { type InvestigationSession } from '../../investigation/investigationSession';
import { type SheetSession } from '../../investigation/sheetSession';

/** How a picture is wanted. */
export interface PictureWish {
  /** Key of the trace that is wanted alone; null for the page. */
  only: string | null;
  width: number;
  height: number;
  /** Pixels a unit of length, where it is made of pixels. */
  sharpness: number;
}

interface Form<Of extends string, Session, Wish extends readonly unknown[]> {
  /** What it is a form of. */
  of: Of;
  /** How it stands in menus and on buttons, after “Save”. */
  title: string;
  /** The ending of the file, without its dot. */
  extension: string;
  /** Makes the file. @throws Error that says why it cannot */
  write(session: Session, ...wish: Wish): Promise<Blob>;
}

/** A form in which what an investigation holds leaves it as a file. */
export type ExportForm =
  | Form<'runs', InvestigationSession, [runs: readonly Run[]]>
  | Form<'picture', SheetSession, [wish: PictureWish]>;
