import { type TrialColumn } from '@heuristor/contracts';
import { faultOfTyping } from '../runs/conditions/conditionText';
import { useInvestigation } from '../investigation/context';
import { TextField } from '../ui/TextField';
import { cellText } from './cellText';
import { useTrials } from './context';
import { type TrialRow, type ViewColumn } from './tableView';
import { textInField, typedCell, typedCondition, unitTypedIn } from './typedCells';
import { withPlannedCell, withTypedCell, withTypedName } from './trialsDocument';

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
  if (kind === 'planned') return column.kind === 'condition';
  return (
    column.kind === 'condition' || (column.kind === 'run' && ['name', 'group', 'note'].includes(column.of))
  );
}

function CellEditor({ row, column: viewed }: Props) {
  const { column, key, title } = viewed;
  const session = useInvestigation();
  const trials = useTrials();
  const { inputs } = trials;
  if (inputs === null) return null;
  const label = `${title} of ${row.name || 'the typed row'}`;
  const { run } = row;
  const typed = inputs.table.typed.find(({ id }) => id === row.id);
  const planned = inputs.table.planned.find(({ id }) => id === row.id);
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
  const said = typed === undefined ? (run ?? planned)?.conditions[condition?.key ?? ''] : typed.cells[key];
  const kind = condition?.kind ?? (said !== undefined && 'word' in said ? 'word' : 'number');
  const shown = unitTypedIn(viewed, inputs);
  const check = (text: string) =>
    faultOfTyping(() => {
      if (typed !== undefined) typedCell(text, shown, kind);
      else if (condition !== undefined) typedCondition(text, shown, condition);
    });
  return (
    <TextField
      label={label}
      value={textInField(row.cells[key], said)}
      maxLength={80}
      className={`cell-field ${kind === 'word' ? '' : 'mono'}`}
      check={check}
      onCommit={(text) => {
        if (typed !== undefined)
          trials.changeTable((table) => withTypedCell(table, row.id, key, typedCell(text, shown, kind)));
        else if (condition !== undefined) {
          const value = typedCondition(text, shown, condition);
          if (run === null)
            trials.changeTable((table) => withPlannedCell(table, row.id, condition.key, value));
          else void session.runActions.change(run, { conditions: { [condition.key]: value } });
        }
      }}
    />
  );
}
