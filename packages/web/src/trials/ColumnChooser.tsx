import { type TrialColumn, runFields } from '@heuristor/contracts';
import { parseUnit, printedUnit, resultRef } from '@heuristor/core';
import { useState } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { Palette } from '../ui/Palette';
import { useTrials } from './context';
import { repeatsIn } from './rowOutcomes';
import { resultTitles } from './resultTitles';
import { type TableInputs } from './tableView';
import { type NewColumn, newColumn, withColumnChanged } from './trialsDocument';

interface Choice {
  group: string;
  title: string;
  says: string;
  column: NewColumn;
}

const fieldTitles = {
  number: 'number of the run',
  name: 'name of the run',
  group: 'group',
  date: 'date',
  note: 'note',
} as const;

/** Everything that can be a column. */
export function columnChoices(inputs: TableInputs): Choice[] {
  const { workings, conditions, outcomes, runs } = inputs;
  const titles = resultTitles(inputs);
  const results = workings.entries.flatMap((entry): Choice[] => {
    const seen = new Map<string, Choice>();
    for (const { id } of runs)
      for (const { entry: of, field, name, main } of outcomes.get(id)?.results.values() ?? [])
        if (of === entry.id && !seen.has(field))
          seen.set(field, {
            group: main ? 'Results' : 'Further results',
            title: titles[resultRef(entry.id, field)] ?? name,
            says: '',
            column: { kind: 'result', entry: entry.id, field },
          });
    return [...seen.values()];
  });
  return [
    ...conditions.map(({ key, name, unit, kind }): Choice => ({
      group: 'Conditions',
      title: name,
      says: kind === 'word' ? 'a word' : printedUnit(parseUnit(unit)),
      column: { kind: 'condition', condition: key },
    })),
    ...repeatsIn(inputs).map(({ of, symbol }): Choice => ({
      group: 'Values, one a row',
      title: symbol,
      says: 'single measurements',
      column: { kind: 'value', of },
    })),
    ...results.sort((a, b) => Number(a.group !== 'Results') - Number(b.group !== 'Results')),
    ...runFields.map((of): Choice => ({
      group: 'Of the run',
      title: fieldTitles[of],
      says: '',
      column: { kind: 'run', of },
    })),
  ];
}

/** What is typed can be a formula where it holds an operation or a bracket. */
const looksLikeFormula = (typed: string) => /[-+*/^()²³]|\s\p{L}/u.test(typed.trim()) && typed.trim() !== '';

export function ColumnChooser() {
  const [isOpen, setIsOpen] = useState(false);
  const trials = useTrials();
  const table = trials.shownTable;
  const hidden = table?.columns.filter((column) => column.hidden) ?? [];
  return (
    <>
      <Button variant="plain" onClick={() => setIsOpen(true)}>
        <PlusLg aria-hidden /> Column
      </Button>
      {hidden.length > 0 && (
        <Dropdown>
          <Dropdown.Toggle variant="bare" className="no-caret">
            {hidden.length} hidden
          </Dropdown.Toggle>
          <Dropdown.Menu>
            {hidden.map(({ key }) => (
              <Dropdown.Item
                as="button"
                key={key}
                onClick={() => trials.changeTable((own) => withColumnChanged(own, key, { hidden: false }))}
              >
                Show {trials.state.getState().view?.columns.find((one) => one.key === key)?.title}
              </Dropdown.Item>
            ))}
          </Dropdown.Menu>
        </Dropdown>
      )}
      {isOpen && <OpenChooser onClose={() => setIsOpen(false)} />}
    </>
  );
}

function OpenChooser({ onClose }: { onClose: () => void }) {
  const trials = useTrials();
  useStore(trials.outcomes);
  const { inputs } = trials;
  if (inputs === null) return null;
  const choices = columnChoices(inputs);
  const add = (column: NewColumn) => {
    onClose();
    trials.plotting.addColumn(newColumn(column) as TrialColumn);
  };
  const found = (typed: string) => {
    const wanted = typed.trim().toLowerCase();
    return choices.filter(({ title, says }) => `${title} ${says}`.toLowerCase().includes(wanted));
  };
  const addFormula = (typed: string) => {
    const named = /^\s*([\p{L}][^=]*?)\s*=\s*(.+)$/u.exec(typed);
    add(
      named === null
        ? { kind: 'formula', formula: typed.trim() }
        : { kind: 'formula', name: named[1], formula: named[2].trim() },
    );
  };
  return (
    <Palette
      title="A column of the table"
      label="Search, or type a formula over columns"
      placeholder="Search, or type a formula: T², F = m a, ln(U/U_0)"
      size="lg"
      isTypedAtOnce
      onClose={onClose}
      onEnter={(typed) => {
        const [first] = found(typed);
        if (first !== undefined && typed.trim() !== '') add(first.column);
        else if (looksLikeFormula(typed)) addFormula(typed);
      }}
      beside={(typed) =>
        looksLikeFormula(typed) && (
          <Button variant="act" onClick={() => addFormula(typed)}>
            Use as a formula
          </Button>
        )
      }
    >
      {(typed) => {
        const left = found(typed);
        const groups = [...new Set(left.map(({ group }) => group))];
        return groups.length === 0 ? (
          <p className="quiet">
            Nothing is called so. A formula speaks of columns, constants and results by their names.
          </p>
        ) : (
          groups.map((group) => (
            <section key={group} className="column-choices" aria-label={group}>
              <h3>{group}</h3>
              {left
                .filter((choice) => choice.group === group)
                .map(({ title, says, column }) => (
                  <Button key={JSON.stringify(column)} variant="plain" onClick={() => add(column)}>
                    {title} {says !== '' && <span className="quiet">{says}</span>}
                  </Button>
                ))}
            </section>
          ))
        );
      }}
    </Palette>
  );
}
