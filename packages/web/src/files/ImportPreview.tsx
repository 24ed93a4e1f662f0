import { type Import, type ImportNames } from '@heuristor/contracts';
import { useId } from 'react';
import { Form } from 'react-bootstrap';
import { shortText } from '../ui/numberText';
import { faultOfColumn, faultOfRun, remarkOnUnit, withColumn, withRunNamed } from './importNames';

interface Props {
  state: Extract<Import['state'], { kind: 'ready' }>;
  names: ImportNames;
  onChange: (names: ImportNames) => void;
}

const number = (value: number | null) => (value === null ? '—' : shortText(value, 17));

/** What a file holds, before anything of it is stored: names and units can be mended here. */
export function ImportPreview({ state, names, onChange }: Props) {
  return (
    <>
      {state.runs.map(({ channels, begins, since }, run) => (
        <div key={run} className="import-run">
          <MendedField
            label={state.runs.length === 1 ? 'Name of the run' : `Name of run ${run + 1}`}
            value={names[run].name}
            fault={faultOfRun(names[run])}
            onChange={(name) => onChange(withRunNamed(names, run, name))}
          />
          {begins !== null && (
            <p className="quiet">
              Times are dates: the first reading was taken on{' '}
              {new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'medium' }).format(
                new Date(begins),
              )}
              , which is t = 0.
            </p>
          )}
          {since !== null && (
            <p className="quiet">
              Times are times of day: the clock showed {since} at the first reading, which is t = 0.
            </p>
          )}
          <table>
            <thead>
              <tr className="quiet">
                <th scope="col">Name</th>
                <th scope="col">Unit</th>
                <th scope="col" colSpan={2}>
                  Readings
                </th>
              </tr>
            </thead>
            <tbody>
              {channels.map((channel, column) => {
                const { name, unit } = names[run].channels[column];
                const mend = (patch: { name?: string; unit?: string }) =>
                  onChange(withColumn(names, run, column, patch));
                return (
                  <tr key={column}>
                    <td>
                      <MendedField
                        label={`Name of column ${column + 1}`}
                        value={name}
                        fault={faultOfColumn(names[run], column)}
                        onChange={(wanted) => mend({ name: wanted })}
                      />
                    </td>
                    <td className="unit">
                      <MendedField
                        label={`Unit of ${name}`}
                        value={unit}
                        fault={null}
                        remark={remarkOnUnit(unit)}
                        onChange={(wanted) => mend({ unit: wanted })}
                      />
                    </td>
                    <td className="mono">{channel.first.map(number).join('  ')} …</td>
                    <td className="quiet">
                      {channel.count.toLocaleString('en')} against {channel.against}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      ))}
    </>
  );
}

interface FieldProps {
  label: string;
  value: string;
  fault: string | null;
  remark?: string | null;
  onChange: (value: string) => void;
}

function MendedField({ label, value, fault, remark = null, onChange }: FieldProps) {
  const sentenceId = useId();
  const sentence = fault ?? remark;
  return (
    <>
      <Form.Control
        aria-label={label}
        aria-invalid={fault !== null}
        aria-describedby={sentence === null ? undefined : sentenceId}
        isInvalid={fault !== null}
        value={value}
        maxLength={60}
        onChange={(event) => onChange(event.target.value)}
      />
      {sentence !== null && (
        <div id={sentenceId} className={fault === null ? 'quiet small' : 'field-fault small'}>
          {sentence}
        </div>
      )}
    </>
  );
}
