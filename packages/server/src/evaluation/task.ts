// Types alone: the thread that works loads what lies behind them itself.
import type { Run } from '@heuristor/contracts';
import type { OutcomesQuestion } from '@heuristor/evaluation';

/** What a thread that evaluates is asked: what sheets say of a run, whose readings it fetches itself. */
export interface EvaluationTask extends OutcomesQuestion {
  run: Run;
  /** Text that is the same as long as the run and its readings are. */
  state: string;
}
