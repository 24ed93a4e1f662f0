import { type ConditionValue, type TrialColumn } from '@heuristor/contracts';
import { ucumCode } from '@heuristor/core';
import { useInvestigation } from '../investigation/context';
import { conditionTyped, faultOfCondition, textOfCondition } from '../runs/conditions/conditionText';
import { TextField } from '../ui/TextField';
import { cellText } from './cellText';
import { useTrials } from './context';
import { type TrialRow, type ViewColumn, unitOfTyped } from './tableView';
import { withTypedCell, withTypedName } from './trialsDocument';

interface Props {
  row: TrialRow;
  column: ViewColumn;
}

/** Where a row meets a column: a number, a word, or a field where it can be typed. */
export function TrialCell({ row, column }: Props) {
  const cell = row.cells[column.key];
  const isNumber = cell.kind === 'number';
  const editor = <CellEditor row={row} column={column} />;
  const why = cell.kind === 'nothing' ? cell.why : null;
  return (
    <td className={isNumber ? 'number' : cell.kind} title={why ?? undefined}>
      {isTyped(row, column.column) ? (
        editor
      ) : why !== null ? (
        <span className="quiet why">
          <span aria-hidden>–</span>
          <span className="visually-hidden">{why}</span>
        </span>
      ) : (
        cellText(cell)
      )}
    </td>
  );
}

/** Whether a person types what stands there: conditions and what is known of a run; all of a typed row but what is worked out. */
function isTyped({ kind }: TrialRow, column: TrialColumn): boolean {
  if (kind === 'typed') return column.kind !== 'formula' && !(column.kind === 'run' && column.of !== 'name');
  return (
    column.kind === 'condition' || (column.kind === 'run' && ['name', 'group', 'note'].includes(column.of))
  );
}

function CellEditor({ row, column: { column, key, title } }: Props) {
  const session = useInvestigation();
  const trials = useTrials();
  const { inputs } = trials;
  if (inputs === null) return null;
  const label = `${title} of ${row.run === null ? row.name || 'the typed row' : row.name}`;
  const { run } = row;
  const typed = inputs.table.typed.find(({ id }) => id === row.id);
  if (column.kind === 'run') {
    const text =
      run === null
        ? row.name
        : column.of === 'group'
          ? run.group
          : column.of === 'note'
            ? run.remark
            : run.name;
    const patch = (next: string) =>
      column.of === 'group' ? { group: next } : column.of === 'note' ? { remark: next } : { name: next };
    return (
      <TextField
        label={label}
        value={text}
        maxLength={column.of === 'note' ? 2000 : 60}
        className="cell-field"
        check={(next) =>
          column.of === 'name' && run !== null && next.trim() === '' ? 'A run needs a name.' : null
        }
        onCommit={(next) =>
          run === null
            ? trials.changeTable((table) => withTypedName(table, row.id, next))
            : void session.runActions.change(run, patch(next))
        }
      />
    );
  }
  const condition =
    column.kind === 'condition' ? inputs.conditions.find((one) => one.key === column.condition) : undefined;
  const isWord =
    condition?.kind === 'word' || (condition === undefined && 'word' in (typed?.cells[key] ?? {}));
  const given = {
    kind: isWord ? ('word' as const) : ('number' as const),
    unit: ucumCode(unitOfTyped(column, inputs)),
  };
  const value: ConditionValue | undefined =
    run === null ? typed?.cells[key] : run.conditions[condition?.key ?? ''];
  // What is typed under the traces is in the unit of the condition, whatever the column shows.
  const asked = run === null || condition === undefined ? given : condition;
  return (
    <TextField
      label={label}
      value={textOfCondition(value)}
      maxLength={80}
      className={`cell-field ${isWord ? '' : 'mono'}`}
      check={(text) => faultOfCondition(text, asked)}
      onCommit={(text) => {
        const next = conditionTyped(text, asked);
        if (run === null) trials.changeTable((table) => withTypedCell(table, row.id, key, next));
        else if (condition !== undefined)
          void session.runActions.change(run, { conditions: { [condition.key]: next } });
      }}
    />
  );
}
