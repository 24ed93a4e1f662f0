import { type ReactNode } from 'react';

/** A line drawing of an apparatus, on 240 × 120, in the colour of the text around it. */
export interface DrawingOf {
  /** What it shows, for those who do not see it. */
  title: string;
  shapes: ReactNode;
}
