import {
  type Anchor,
  type Entry,
  type Field,
  type FormulaText,
  type SeriesRef,
  fieldsOf,
  resultRef,
  toldTo,
} from '@heuristor/core';
import { useId } from 'react';
import { Form } from 'react-bootstrap';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useNames, useResultNames, useSession } from '../session/context';
import { seriesChoices } from '../session/edits';
import { NumberField } from '../ui/NumberField';
import { TextField } from '../ui/TextField';
import { AnchorField } from './AnchorField';
import { FormulaField } from './FormulaField';
import { useUnitOf } from './useUnitOf';
import { ParametersTable } from './ParametersTable';

/** What an entry speaks of, chosen anew: one row for each field that its kind declares. */
export function EntryEditor({
  entry,
  only,
  onDone,
}: {
  entry: Entry;
  /** Names of the fields that are asked for; all of them where nothing is said. */
  only?: readonly string[];
  onDone?: () => void;
}) {
  const id = useId();
  const values = toldTo(entry) as unknown as Readonly<Record<string, unknown>>;
  // Flags are switched in the menu of the entry.
  const fields = fieldsOf(entry).filter(
    ([name, field]) => field.type !== 'flag' && (only === undefined || only.includes(name)),
  );
  return (
    <div className="entry-edit">
      {fields.map(([key, field]) => (
        <FieldRow
          key={key}
          id={`${id}${key}`}
          name={key}
          field={field}
          entry={entry}
          value={values[key]}
          onDone={onDone}
        />
      ))}
    </div>
  );
}

interface RowProps {
  id: string;
  name: string;
  field: Field;
  entry: Entry;
  value: unknown;
  onDone?: (() => void) | undefined;
}

function FieldRow({ id, name, field, entry, value, onDone }: RowProps) {
  const session = useSession();
  const set = (newValue: unknown) => session.changeEntry(entry.id, { [name]: newValue });
  if (field.type === 'formula')
    return (
      <FormulaField
        id={id}
        entry={entry}
        label={field.label}
        value={value as FormulaText}
        allowsOpen={entry.kind === 'formulaFit'}
        onCommit={(formula, more) => session.changeEntry(entry.id, { [name]: formula, ...more })}
        {...(entry.kind === 'formulaFit' || onDone === undefined ? {} : { onDone })}
      />
    );
  if (field.type === 'parameters')
    return entry.kind === 'formulaFit' ? <ParametersTable entry={entry} /> : null;
  return (
    <>
      <Form.Label htmlFor={id}>{field.label}</Form.Label>
      <FieldControl id={id} field={field} entry={entry} value={value} set={set} />
    </>
  );
}

function FieldControl({
  id,
  field,
  entry,
  value,
  set,
}: Omit<RowProps, 'name'> & { set: (value: unknown) => void }) {
  const nameOf = useNames();
  const { workings, runs } = useDocuments(
    useShallow(({ workings: sheet, runs: own }) => ({ workings: sheet, runs: own })),
  );
  const select = (options: { key: string; title: string }[], toValue = (key: string): unknown => key) => (
    <Form.Select id={id} value={String(value ?? '')} onChange={(event) => set(toValue(event.target.value))}>
      {options.map(({ key, title }) => (
        <option key={key} value={key}>
          {title}
        </option>
      ))}
    </Form.Select>
  );
  switch (field.type) {
    case 'series': {
      const choices = seriesChoices(runs, workings).filter((choice) => choice !== `entry:${entry.id}`);
      const all = field.axis ? ['t', ...choices] : choices;
      return select(
        all.map((key) => ({
          key,
          title: key === 't' && field.none !== undefined ? field.none : nameOf(key),
        })),
      );
    }
    case 'region':
      return select(
        [
          { key: '', title: field.later === true ? 'none yet' : 'the whole run' },
          ...workings.entries
            .filter((other) => other.kind === 'region')
            .map(({ id: key, letter, name }) => ({ key, title: `${letter} ${name}` })),
        ],
        (key) => (key === '' ? null : key),
      );
    case 'choice':
      return select([...field.options]);
    case 'integer':
      return (
        <NumberField
          id={id}
          label={field.label}
          value={Number(value)}
          check={(number) =>
            !Number.isInteger(number) ||
            number < field.low ||
            number > field.high ||
            (field.odd && number % 2 === 0)
              ? `Type ${field.odd ? 'an odd' : 'a'} whole number from ${field.low} to ${field.high}.`
              : null
          }
          onCommit={set}
        />
      );
    case 'number':
      return (
        <span className="with-unit">
          <NumberField
            id={id}
            label={field.label}
            value={Number(value)}
            check={(number) =>
              field.low !== null && number < field.low ? `Type a number from ${field.low} upwards.` : null
            }
            onCommit={set}
          />
          {field.inUnitOf === 'of' && 'of' in entry && <UnitOf reference={entry.of} entry={entry} />}
        </span>
      );
    case 'text':
      return (
        <TextField
          id={id}
          label={field.label}
          value={String(value)}
          maxLength={field.most}
          onCommit={(text) => set(text.trim())}
        />
      );
    case 'result':
      return <ResultSelect id={id} entry={entry} value={String(value)} set={set} />;
    case 'anchor':
      return (
        <AnchorField
          id={id}
          label={field.label}
          none={field.later === true && entry.kind === 'region' ? 'where it is marked' : 'nothing chosen'}
          value={value as Anchor | null}
          entry={entry}
          onChange={set}
        />
      );
    case 'regions': {
      const chosen = (value ?? []) as readonly string[];
      const own = 'region' in entry ? entry.region : null;
      const others = workings.entries
        .filter((other) => other.kind === 'region')
        .filter((other) => other.id !== own);
      return (
        <div id={id} role="group" aria-label={field.label} className="region-choices">
          {own === null || others.length === 0 ? (
            <span className="quiet">{own === null ? 'it is on the whole run' : 'no other region'}</span>
          ) : (
            others.map((other) => (
              <Form.Check
                key={other.id}
                id={`${id}${other.id}`}
                label={`${other.letter} ${other.name}`.trim()}
                checked={chosen.includes(other.id)}
                onChange={({ target }) =>
                  set(target.checked ? [...chosen, other.id] : chosen.filter((region) => region !== other.id))
                }
              />
            ))
          )}
        </div>
      );
    }
    case 'formula':
    case 'parameters':
    case 'flag':
    case 'ownStretches':
      return null;
  }
}

/** The unit in which something is told of a series. */
function UnitOf({ reference, entry }: { reference: SeriesRef; entry: Entry }) {
  return <span className="quiet">{useUnitOf(reference, entry)}</span>;
}

/** The results of the other entries, by what they are called. */
function ResultSelect({
  id,
  entry,
  value,
  set,
}: Pick<RowProps, 'id' | 'entry'> & { value: string; set: (value: unknown) => void }) {
  const names = useResultNames();
  const own = resultRef(entry.id, '');
  const choices = Object.entries(names).filter(([reference]) => !reference.startsWith(own));
  return (
    <Form.Select id={id} value={value} onChange={(event) => set(event.target.value)}>
      {!choices.some(([reference]) => reference === value) && <option value={value}>a removed result</option>}
      {choices.map(([reference, name]) => (
        <option key={reference} value={reference}>
          {name}
        </option>
      ))}
    </Form.Select>
  );
}
