import { type ConditionChanges, type ConditionValues, type Run } from '@heuristor/contracts';
import { type InvestigationSession } from '../../investigation/investigationSession';

/** What is said of a run, and how more is said of it; of the first run before it is recorded, too. */
export interface Said {
  /** Tells one from another: fields of another run are other fields. */
  key: string;
  /** As in "mass of run 3". */
  called: string;
  conditions: ConditionValues;
  group: string;
  /** Null of a run that is not there yet. */
  remark: string | null;
  say: (changes: ConditionChanges) => void;
  sayGroup: (group: string) => void;
  sayRemark: (remark: string) => void;
}

export const saidOfRun = (session: InvestigationSession, run: Run): Said => ({
  key: run.id,
  called: `run ${run.number}`,
  conditions: run.conditions,
  group: run.group,
  remark: run.remark,
  say: (conditions) => void session.runActions.change(run, { conditions }),
  sayGroup: (group) => void session.runActions.change(run, { group }),
  sayRemark: (remark) => void session.runActions.change(run, { remark }),
});

export const saidOfNext = (
  session: InvestigationSession,
  { conditions, group }: { conditions: ConditionValues; group: string },
): Said => ({
  key: 'next',
  called: 'the first run',
  conditions,
  group,
  remark: null,
  say: (changes) => void session.plan.sayOfNext({ conditions: changes }),
  sayGroup: (wanted) => void session.plan.sayOfNext({ group: wanted }),
  sayRemark: () => undefined,
});
