/** Entries whose numbers somebody can see. */
export interface Sought {
  /** Of every run. */
  everywhere: readonly string[];
  /** Of the run in front alone. */
  inFront: readonly string[];
}
