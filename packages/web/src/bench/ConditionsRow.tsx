import { type ConditionColumn, type ConditionValue, type Run } from '@heuristor/contracts';
import { leadingNumber, parseUnit, printedUnit, typedQuantity, ucumCode } from '@heuristor/core';
import { useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useDocuments, useFrontRun, useSession } from '../session/context';
import { NameField } from '../ui/NameField';
import { TextField } from '../ui/TextField';
import { shortText } from '../ui/numberText';
import { FixedMenu } from '../ui/FixedMenu';

/** What was changed for the run in front, who recorded it, and what there is to say; never in the way of the next recording. */
export function ConditionsRow() {
  const session = useSession();
  const columns = useDocuments(({ plan }) => plan.conditions);
  const run = useFrontRun();
  if (run === undefined || run.origin === 'imported') return null;
  const give = (key: string, value: ConditionValue | undefined) => {
    const others = Object.fromEntries(Object.entries(run.conditions).filter(([other]) => other !== key));
    void session.runDesk.change(run, {
      conditions: value === undefined ? others : { ...others, [key]: value },
    });
  };
  return (
    <section className="conditions" aria-label={`Conditions of run ${run.number}`}>
      <span className="quiet">Run {run.number}:</span>
      {columns.map((column) => (
        <Condition key={`${run.id}/${column.key}`} column={column} run={run} onGive={give} />
      ))}
      <NewCondition columns={columns} />
      <span className="condition">
        <label htmlFor={`group-${run.id}`}>Group</label>
        <TextField
          id={`group-${run.id}`}
          key={`group ${run.id}`}
          label={`Group of run ${run.number}`}
          value={run.group}
          maxLength={80}
          onCommit={(group) => void session.runDesk.change(run, { group })}
        />
      </span>
      <span className="condition wide">
        <label htmlFor={`remark-${run.id}`}>Note</label>
        <TextField
          id={`remark-${run.id}`}
          key={`note ${run.id}`}
          label={`Note on run ${run.number}`}
          value={run.remark}
          maxLength={2000}
          onCommit={(remark) => void session.runDesk.change(run, { remark })}
        />
      </span>
    </section>
  );
}

interface ConditionProps {
  column: ConditionColumn;
  run: Run;
  onGive: (key: string, value: ConditionValue | undefined) => void;
}

function Condition({ column, run, onGive }: ConditionProps) {
  const session = useSession();
  const columns = useDocuments(({ plan }) => plan.conditions);
  const { key, name, kind, unit } = column;
  const given = run.conditions[key];
  const printed = printedUnit(parseUnit(unit));
  return (
    <span className="condition">
      <Dropdown drop="up">
        <Dropdown.Toggle variant="bare" className="no-caret condition-name" aria-label={`Condition ${name}`}>
          {name}
        </Dropdown.Toggle>
        <FixedMenu>
          <div className="p-2">
            <NameField
              label={`Name of the condition ${name}`}
              value={name}
              maxLength={40}
              onCommit={(wanted) =>
                void session.plan.change({
                  conditions: columns.map((other) =>
                    other.key === key ? { ...other, name: wanted } : other,
                  ),
                })
              }
            />
          </div>
          <Dropdown.Item
            onClick={() =>
              void session.plan.change({ conditions: columns.filter((other) => other.key !== key) })
            }
          >
            Ask it no more
          </Dropdown.Item>
        </FixedMenu>
      </Dropdown>
      <TextField
        label={`${name} of run ${run.number}`}
        value={textOf(given)}
        maxLength={80}
        className={kind === 'number' ? 'mono short' : 'short'}
        check={(text) => {
          try {
            valueOf(text, kind, unit);
            return null;
          } catch (error) {
            return error instanceof Error ? error.message : String(error);
          }
        }}
        onCommit={(text) => onGive(key, valueOf(text, kind, unit))}
      />
      {kind === 'number' && <span>{printed}</span>}
    </span>
  );
}

const shown = (value: number) => shortText(value, 10);

/** As it stands in its field: "0.5 ± 0.001", or the word. */
function textOf(given: ConditionValue | undefined): string {
  if (given === undefined) return '';
  if ('word' in given) return given.word;
  return given.u === null ? shown(given.value) : `${shown(given.value)} ± ${shown(given.u)}`;
}

/** What was typed; nothing takes the value away. @throws Error that says what would be right */
function valueOf(text: string, kind: ConditionColumn['kind'], unit: string): ConditionValue | undefined {
  if (text.trim() === '') return undefined;
  if (kind === 'word') return { word: text.trim() };
  const expected = parseUnit(unit);
  const [value, u] = text.split(/±|\+-/);
  if (u === undefined) return { value: typedQuantity(value, expected), u: null };
  // "0.5 ± 0.001 kg": the unit after the uncertainty is that of both.
  const own = leadingNumber(value)?.rest === '' ? (leadingNumber(u)?.rest ?? '') : '';
  return { value: typedQuantity(`${value} ${own}`, expected), u: Math.abs(typedQuantity(u, expected)) };
}

/** Asks one more thing of every run. */
function NewCondition({ columns }: { columns: readonly ConditionColumn[] }) {
  const session = useSession();
  const [name, setName] = useState('');
  const [unit, setUnit] = useState('');
  const [isOpen, setIsOpen] = useState(false);
  const add = (kind: ConditionColumn['kind']) => {
    const taken = new Set(columns.map(({ key }) => key));
    let place = columns.length + 1;
    while (taken.has(`c${place}`)) place++;
    void session.plan.change({
      conditions: [
        ...columns,
        { key: `c${place}`, name, kind, unit: kind === 'word' ? '' : ucumCode(parseUnit(unit)) },
      ],
    });
    setIsOpen(false);
    setName('');
    setUnit('');
  };
  return (
    <Dropdown drop="up" show={isOpen} onToggle={setIsOpen} autoClose="outside">
      <Dropdown.Toggle variant="bare" className="no-caret">
        <PlusLg aria-hidden /> Condition
      </Dropdown.Toggle>
      <FixedMenu className="p-3">
        <Form
          className="editor-rows"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() !== '') add(unit.trim() === '' ? 'word' : 'number');
          }}
        >
          <Form.Control
            size="sm"
            aria-label="Name of the new condition"
            placeholder="mass, spring, distance …"
            value={name}
            maxLength={40}
            onChange={(event) => setName(event.target.value)}
          />
          <Form.Control
            size="sm"
            aria-label="Unit of the new condition"
            placeholder="unit; none for a word, 1 for a plain number"
            value={unit}
            maxLength={20}
            onChange={(event) => setUnit(event.target.value)}
          />
          <Button type="submit" variant="act" size="sm" disabled={name.trim() === ''}>
            Ask it of every run
          </Button>
        </Form>
      </FixedMenu>
    </Dropdown>
  );
}
