import { type KeptDocument, type KeptKind } from '@heuristor/contracts';

/** What pages have to know of a kind of document, beside its formats, which stand in the contracts. */
export interface KeptKindHere<K extends KeptKind> {
  kind: K;
  /** The place of the page on which it is changed, where its steps are taken back after a reload. */
  page: string;
  /** What a step has done to it, as an order in lower case: “move region A”. */
  stepName(before: KeptDocument<K>, after: KeptDocument<K>): string;
  /**
   * It with one step taken back, or taken again, beside what others have done to it since.
   * @returns it, and whether all of the step could be taken back
   */
  steppedBack(
    present: KeptDocument<K>,
    after: KeptDocument<K>,
    before: KeptDocument<K>,
  ): { document: KeptDocument<K>; isWhole: boolean };
  /** Why a change cannot be; null where it can. @param moving whether a hand still moves something */
  faultOf(before: KeptDocument<K>, after: KeptDocument<K>, moving: boolean): string | null;
  /** What a step back to another screen’s version is called. */
  takenOver: string;
}
