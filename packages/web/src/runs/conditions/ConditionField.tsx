import { type ConditionColumn } from '@heuristor/contracts';
import { conditionTyped, faultOfCondition, textOfCondition } from './conditionText';
import { TextField } from '../../ui/TextField';
import { type Said } from './saidOf';

/** One condition of one run. It is stored by its own name, so that what is typed meanwhile for another one stays. */
export const ConditionField = ({
  column,
  said,
  id,
}: {
  column: ConditionColumn;
  said: Said;
  id?: string;
}) => (
  <TextField
    id={id}
    label={`${column.name} of ${said.called}`}
    value={textOfCondition(said.conditions[column.key])}
    maxLength={80}
    className={column.kind === 'number' ? 'mono short' : 'short'}
    check={(text) => faultOfCondition(text, column)}
    onCommit={(text) => said.say({ [column.key]: conditionTyped(text, column) })}
  />
);

/** Who recorded a run. */
export const GroupField = ({ said, id }: { said: Said; id?: string }) => (
  <TextField
    id={id}
    label={`Group of ${said.called}`}
    value={said.group}
    maxLength={80}
    onCommit={said.sayGroup}
  />
);

/** What there is to say of a run. */
export const RemarkField = ({ said, id }: { said: Said; id?: string }) => (
  <TextField
    id={id}
    label={`Note on ${said.called}`}
    value={said.remark ?? ''}
    maxLength={2000}
    onCommit={said.sayRemark}
  />
);
