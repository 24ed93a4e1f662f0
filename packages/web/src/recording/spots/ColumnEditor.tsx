import { type GivenColumn } from '@heuristor/contracts';
import { Refusal, orRefusal, parseUnit, typedQuantity, ucumCode } from '@heuristor/core';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useInvestigation } from '../../investigation/context';
import { usedBy } from '../../sensors/sensors';
import { useDevices } from '../../sensors/devices';
import { Unfolding } from '../../ui/Unfolding';

interface Props {
  columns: GivenColumn[];
  /** The column that is changed; none where a new one is made. */
  column?: GivenColumn;
}

/** A column for what is typed: made, or changed where it stands. */
export function ColumnEditor({ columns, column }: Props) {
  const title = column === undefined ? 'New column' : `Column ${column.name}`;
  const face =
    column === undefined ? (
      <>
        <PlusLg aria-hidden /> Column
      </>
    ) : (
      column.name
    );
  return (
    <Unfolding title={title} label={title} face={face}>
      {(close) => <ColumnForm columns={columns} column={column} onDone={close} />}
    </Unfolding>
  );
}

/** A key that no column has: the name, or with the next number. */
function freeKey(name: string, columns: readonly GivenColumn[]): string {
  const wish = name.slice(0, 12);
  let key = wish;
  const isTaken = () => key in Object.prototype || columns.some((other) => other.key === key);
  for (let n = 2; isTaken(); n++) key = `${wish}${n}`;
  return key;
}

function ColumnForm({ columns, column, onDone }: Props & { onDone: () => void }) {
  const session = useInvestigation();
  const devices = useDevices((state) => state.devices);
  const typed = column?.kind === 'typed' ? column : undefined;
  const [name, setName] = useState(column?.name ?? '');
  const [unit, setUnit] = useState(typed?.unit ?? '');
  const [offset, setOffset] = useState(String(typed?.offset ?? 0).replace('-', '−'));
  const [output, setOutput] = useState(
    typed?.output == null ? '' : `${typed.output.code}/${typed.output.key}`,
  );
  const [wrong, setWrong] = useState<string | null>(null);
  const outputs = usedBy(devices, session.id).flatMap(({ code, outputs: own }) =>
    own.map(({ key, label, unit: of }) => ({
      id: `${code}/${key}`,
      code,
      key,
      label: `${label} of ${code}`,
      unit: of,
    })),
  );
  const chosen = outputs.find(({ id }) => id === output);
  const isWord = column === undefined ? unit.trim() === '' && chosen === undefined : column.kind === 'word';
  const save = () => {
    const key = column?.key ?? freeKey(name.trim(), columns);
    if (name.trim() === '') {
      setWrong('Give the column a name: a letter, or a word.');
      return;
    }
    const made = orRefusal((): GivenColumn => {
      if (isWord) return { kind: 'word', key, name: name.trim() };
      const of = chosen?.unit ?? ucumCode(parseUnit(unit));
      return {
        kind: 'typed',
        key,
        name: name.trim(),
        unit: of,
        offset: typedQuantity(offset, parseUnit(of)),
        output: chosen === undefined ? null : { code: chosen.code, key: chosen.key },
      };
    });
    if (made instanceof Refusal) {
      setWrong(made.message);
      return;
    }
    void session.spots.setColumns(
      column === undefined ? [...columns, made] : columns.map((other) => (other === column ? made : other)),
    );
    onDone();
  };
  return (
    <Form
      className="editor-rows"
      onSubmit={(event) => {
        event.preventDefault();
        event.stopPropagation();
        save();
      }}
    >
      <Form.Control
        size="sm"
        autoFocus
        aria-label="Name of the column"
        placeholder="r, mass, colour …"
        value={name}
        maxLength={40}
        onChange={(event) => setName(event.target.value)}
      />
      {column?.kind !== 'word' && (
        <>
          <Form.Control
            size="sm"
            aria-label="Unit of the column"
            placeholder="unit, 1, or nothing for words"
            value={chosen?.unit ?? unit}
            disabled={chosen !== undefined}
            maxLength={40}
            onChange={(event) => setUnit(event.target.value)}
          />
          {!isWord && (
            <div className="editor-row">
              <span>taken off what is typed</span>
              <Form.Control
                size="sm"
                className="number-input"
                aria-label="Offset of the column"
                value={offset}
                onChange={(event) => setOffset(event.target.value)}
              />
            </div>
          )}
          {outputs.length > 0 && (
            <Form.Select
              size="sm"
              aria-label="What the column sets"
              value={output}
              onChange={(event) => setOutput(event.target.value)}
            >
              <option value="">set by hand</option>
              {outputs.map(({ id, label }) => (
                <option key={id} value={id}>
                  Heuristor sets {label}
                </option>
              ))}
            </Form.Select>
          )}
        </>
      )}
      {wrong !== null && (
        <p className="refused" role="alert">
          {wrong}
        </p>
      )}
      <div className="row-buttons">
        <Button type="submit" variant="act" size="sm">
          {column === undefined ? 'Add the column' : 'Change it'}
        </Button>
        {column !== undefined && (
          <Button
            variant="plain"
            size="sm"
            onClick={() => {
              void session.spots.setColumns(columns.filter((other) => other !== column));
              onDone();
            }}
          >
            Remove it
          </Button>
        )}
      </div>
    </Form>
  );
}
