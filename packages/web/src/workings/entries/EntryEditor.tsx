import { type Entry, type Field, type FieldTypeKey, completeEntry, fieldsOf } from '@heuristor/core';
import { useId } from 'react';
import { Form } from 'react-bootstrap';
import { useSession } from '../../investigation/context';
import { fieldEditors } from '../fields';
import { type FieldEditor } from '../fields/field';

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
  const values = completeEntry(entry) as unknown as Readonly<Record<string, unknown>>;
  const fields = fieldsOf(entry).filter(([name]) => only === undefined || only.includes(name));
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
  onDone: (() => void) | undefined;
}

function FieldRow({ field, ...rest }: RowProps) {
  const session = useSession();
  // A field and its editor carry the same key, which the type system cannot follow through the look-up.
  const editor = fieldEditors[field.type] as unknown as FieldEditor<FieldTypeKey, unknown> | null;
  if (editor === null) return null;
  const { id, name, entry } = rest;
  const set = (value: unknown) => session.changeEntry(entry.id, { [name]: value });
  return (
    <>
      {editor.isRow !== true && <Form.Label htmlFor={id}>{field.label}</Form.Label>}
      <editor.Control field={field} set={set} {...rest} />
    </>
  );
}
