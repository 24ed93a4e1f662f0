import { type Import, type ImportAnswer, type ImportLayout, separatorNames } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { Form } from 'react-bootstrap';
import { RateField } from '../ui/RateField';

interface Props {
  state: Extract<Import['state'], { kind: 'ready' }>;
  onAnswer: (choices: ImportAnswer) => void;
}

const usualRate = 50;

/** How a file was understood, each part to be decided otherwise: the file is then read again. */
export function ImportChoices({ state, onAnswer }: Props) {
  const { columns, layout, separator, decimal, encoding, rows, skipped } = state;
  const { axis, without } = layout;
  const lay = (change: Partial<ImportLayout>) => onAnswer({ layout: { ...layout, ...change } });
  const nameOf = ({ name, unit }: { name: string; unit: string }) =>
    unit === '' || unit === '1' ? name : `${name} in ${printedUnit(parseUnit(unit))}`;
  return (
    <fieldset className="import-choices">
      <legend className="quiet">
        {rows.toLocaleString('en')} rows, {encoding}
        {skipped > 0 && `, ${skipped} ${skipped === 1 ? 'line' : 'lines'} of comment passed over`}
      </legend>
      <div className="import-row">
        <label>
          <span>Separated by</span>
          <Form.Select
            size="sm"
            value={separator}
            aria-label="Separator"
            onChange={(event) =>
              onAnswer({ separator: separatorNames.find((name) => name === event.target.value) })
            }
          >
            {separatorNames.map((name) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </Form.Select>
        </label>
        <label>
          <span>Decimal sign</span>
          <Form.Select
            size="sm"
            value={decimal}
            aria-label="Decimal sign"
            onChange={(event) => onAnswer({ decimal: event.target.value === ',' ? ',' : '.' })}
          >
            <option value=".">point</option>
            <option value=",">comma</option>
          </Form.Select>
        </label>
        <label>
          <span>Against</span>
          <Form.Select
            size="sm"
            value={axis.kind === 'column' ? `column ${axis.column}` : axis.kind}
            aria-label="What the readings are taken against"
            onChange={(event) => {
              const [kind, column] = event.target.value.split(' ');
              if (kind === 'column') lay({ axis: { kind, column: Number(column) } });
              else if (kind === 'rate') lay({ axis: { kind, hertz: usualRate } });
              else if (kind === 'spots') lay({ axis: { kind } });
              else lay({ axis: { kind: 'as-read' } });
            }}
          >
            <option value="as-read">the time in column 1, else their number</option>
            {columns.map((column, i) => (
              <option key={i} value={`column ${i}`}>
                {nameOf(column)}, as the time
              </option>
            ))}
            <option value="rate">a rate that I type</option>
            <option value="spots">nothing: each row is a spot reading</option>
          </Form.Select>
        </label>
        {axis.kind === 'rate' && (
          <RateField
            label="Rate of the rows"
            value={axis.hertz}
            onCommit={(hertz) => lay({ axis: { kind: 'rate', hertz } })}
          />
        )}
      </div>
      {columns.length > 1 && (
        <div className="import-row">
          <span className="quiet">Columns</span>
          {columns.map((column, i) => (
            <Form.Check
              key={i}
              inline
              id={`column-${i}`}
              label={nameOf(column)}
              checked={!without.includes(i)}
              onChange={() =>
                lay({ without: without.includes(i) ? without.filter((own) => own !== i) : [...without, i] })
              }
            />
          ))}
        </div>
      )}
    </fieldset>
  );
}
