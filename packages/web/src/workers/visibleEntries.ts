/** Entries whose numbers somebody can see. */
export interface VisibleEntries {
  /** Of every run. */
  everywhere: readonly string[];
  /** Of the run in front alone. */
  inFront: readonly string[];
}
