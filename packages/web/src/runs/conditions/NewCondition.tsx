import { type ConditionColumn } from '@heuristor/contracts';
import { parseUnit, ucumCode } from '@heuristor/core';
import { useEffect, useRef, useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useInvestigation } from '../../investigation/context';
import { FixedMenu } from '../../ui/FixedMenu';

/** Asks one more thing of every run. */
export function NewCondition({ columns }: { columns: readonly ConditionColumn[] }) {
  const session = useInvestigation();
  const [name, setName] = useState('');
  const [unit, setUnit] = useState('');
  const [isOpen, setIsOpen] = useState(false);
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (isOpen) first.current?.focus();
  }, [isOpen]);
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
            ref={first}
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
            Ask for it in every run
          </Button>
        </Form>
      </FixedMenu>
    </Dropdown>
  );
}
