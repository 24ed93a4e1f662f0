import { type HoldsWhere as Condition } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { Button } from 'react-bootstrap';
import { XLg } from 'react-bootstrap-icons';
import { NumberField } from '../ui/NumberField';
import { shortText } from '../ui/numberText';
import { useShownTable, useTrials, useTrialsState } from './context';
import { numberColumns } from './derivedRun';
import { heldSentence } from './heldSentence';
import { reachOf, heldSpans, unitOf } from './holds';

const signs = { atMost: '≤', atLeast: '≥' } as const;

/** A condition on a column, and where along the horizontal axis it holds: marked in the plot, and said. */
export function HoldsWhere() {
  const trials = useTrials();
  const table = useShownTable();
  const view = useTrialsState((state) => state.view);
  const { across } = trials.plotting;
  const key = across.startsWith('channel:') ? across.slice('channel:'.length) : null;
  if (table === undefined || view === null || key === null) return null;
  const columns = numberColumns(view.columns);
  const { holds } = table.plot;
  const put = (next: Condition | null) =>
    trials.changeTable((own) => ({ ...own, plot: { ...own.plot, holds: next } }));
  if (holds === null) return null;
  const column = columns.find((one) => one.key === holds.column);
  const along = columns.find((one) => one.key === key);
  const unit = printedUnit(parseUnit(holds.unit));
  const rows = trials.plotted.filter(({ leftOut }) => leftOut === null);
  return (
    <span className="holds-where">
      <span className="quiet">holds where</span>
      <select
        className="form-select form-select-sm"
        aria-label="Which column a condition is on"
        value={holds.column}
        onChange={({ target }) =>
          put({
            ...holds,
            column: target.value,
            unit: unitOf(columns.find(({ key: own }) => own === target.value)),
          })
        }
      >
        {column === undefined && <option value={holds.column}>a column that has gone</option>}
        {columns.map((one) => (
          <option key={one.key} value={one.key}>
            {one.title}
          </option>
        ))}
      </select>
      <select
        className="form-select form-select-sm"
        aria-label="At most or at least"
        value={holds.is}
        onChange={({ target }) => put({ ...holds, is: target.value as Condition['is'] })}
      >
        {Object.entries(signs).map(([is, sign]) => (
          <option key={is} value={is}>
            {sign}
          </option>
        ))}
      </select>
      <NumberField label="So much" value={holds.level} onCommit={(level) => put({ ...holds, level })} />
      <span className="mono">{unit}</span>
      <Button variant="bare" aria-label="Mark nothing" title="Mark nothing" onClick={() => put(null)}>
        <XLg aria-hidden />
      </Button>
      {column !== undefined && along !== undefined && (
        <span className="held-sentence" role="status">
          {heldSentence(
            {
              condition: `${column.title} ${signs[holds.is]} ${shortText(holds.level, 10)} ${unit}`.trim(),
              along: along.title,
              unit: printedUnit(along.unit ?? []),
            },
            heldSpans(rows, key, holds),
            reachOf(rows, key, holds),
          )}
        </span>
      )}
    </span>
  );
}
