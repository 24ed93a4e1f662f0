import { type ComponentType, type ReactNode } from 'react';

/** What stands on the bench for a way of recording. */
export interface WayParts {
  /** On the left of the bar: what begins and ends a run, or says who does. */
  Bar: ComponentType;
  /** The plan of what comes next, under the bar. `menu` chooses the way and begins the line. */
  Line: ComponentType<{ locked: boolean; menu: ReactNode }>;
  /** Whether they stay while a run is recorded; else it is shown as any run against time. */
  stay: boolean;
  /** Between the plan and the traces, where it has anything to say; it decides that itself, whatever the way is now. */
  Panel: ComponentType | null;
  /** Beside the traces, while this is the way. */
  Beside: ComponentType | null;
}
