import { type ResultRef, resultRef } from '@heuristor/core';
import { useEffect, useMemo, useState } from 'react';
import { Form, ListGroup } from 'react-bootstrap';
import { useStore } from 'zustand';
import { useFrontRun } from '../../investigation/context';
import { conditionWithUnit } from '../../runs/conditions/conditionText';
import { countedRuns } from '../../trials/counted';
import { Palette } from '../../ui/Palette';
import { useNotebook } from '../context';
import { type Quotation, resultText } from '../quotation';
import { namesOf } from '../useQuoted';

/** A value of a run, how it is called and how it reads now. */
export interface QuotationChoice {
  quotation: Quotation;
  name: string;
  text: string;
}

/** Every value of a run that a sentence can quote. */
function useChoices(run: string): { choices: readonly QuotationChoice[]; isWaiting: boolean } {
  const notebook = useNotebook();
  useEffect(() => notebook.values.need(run), [notebook, run]);
  const { workings, plan, runs } = useStore(notebook.host.documents);
  const outcome = useStore(notebook.values.state, ({ outcomes }) => outcomes.get(run));
  return useMemo(() => {
    const found = runs.find(({ id }) => id === run);
    if (found === undefined) return { choices: [], isWaiting: false };
    const conditions = plan.conditions.flatMap((column): QuotationChoice[] => {
      const said = found.conditions[column.key];
      if (said === undefined) return [];
      const quotation = { of: 'condition', run, entry: '', key: column.key } as const;
      return [{ quotation, name: column.name, text: conditionWithUnit(said, column) }];
    });
    if (outcome === undefined) return { choices: conditions, isWaiting: true };
    const names = namesOf(workings, outcome, found);
    const results = workings.entries.flatMap(({ id: entry }) =>
      [...outcome.results.values()]
        .filter((result) => result.entry === entry)
        .flatMap(({ field: key }): QuotationChoice[] => {
          const text = resultText(outcome, workings, entry, key);
          const name = names[resultRef(entry, key) as ResultRef];
          return text === null ? [] : [{ quotation: { of: 'result', run, entry, key }, name, text }];
        }),
    );
    return { choices: [...results, ...conditions], isWaiting: false };
  }, [workings, plan, runs, run, outcome]);
}

/** The values of a run, to choose one of them. */
export function QuotationPalette({
  title,
  onlyResults = false,
  onTake,
  onClose,
}: {
  title: string;
  /** Whether conditions are left out. */
  onlyResults?: boolean;
  onTake: (choice: QuotationChoice) => void;
  onClose: () => void;
}) {
  const notebook = useNotebook();
  const { runs: all } = useStore(notebook.host.documents);
  const runs = countedRuns(all);
  const front = useFrontRun();
  const [run, setRun] = useState(
    runs.some(({ id }) => id === front?.id) ? (front?.id ?? '') : (runs.at(-1)?.id ?? ''),
  );
  const { choices, isWaiting } = useChoices(run);
  const left = (typed: string) => {
    const wanted = typed.trim().toLowerCase();
    return choices.filter(
      ({ name, quotation }) =>
        name.toLowerCase().includes(wanted) && !(onlyResults && quotation.of === 'condition'),
    );
  };
  const take = (choice: QuotationChoice | undefined) => {
    if (choice === undefined) return;
    onClose();
    onTake(choice);
  };
  // Who types faster than the workings are evaluated has chosen already.
  const [entered, setEntered] = useState<string | null>(null);
  const awaited = entered === null || isWaiting ? undefined : (left(entered).at(0) ?? null);
  useEffect(() => {
    if (awaited === undefined) return;
    setEntered(null);
    if (awaited === null) return;
    onClose();
    onTake(awaited);
  }, [awaited, onClose, onTake]);
  return (
    <Palette
      title={title}
      label="Search values"
      placeholder="Type a part of its name"
      size="lg"
      className="quote-chooser"
      isTypedAtOnce
      onClose={onClose}
      onEnter={(typed) => {
        if (left(typed).length === 0 && isWaiting) setEntered(typed);
        else take(left(typed).at(0));
      }}
      beside={() => (
        <Form.Select
          aria-label="Run"
          value={run}
          onChange={({ target }) => {
            setEntered(null);
            setRun(target.value);
          }}
        >
          {runs.map(({ id, number, name }) => (
            <option key={id} value={id}>
              Run {number} · {name}
            </option>
          ))}
        </Form.Select>
      )}
    >
      {(typed) =>
        runs.length === 0 ? (
          <p className="quiet">There are no runs yet. Record one on the Bench first.</p>
        ) : (
          <ListGroup>
            {left(typed).map((choice) => (
              <ListGroup.Item
                key={`${choice.quotation.of}/${choice.quotation.entry}/${choice.quotation.key}`}
                action
                as="button"
                onClick={() => take(choice)}
              >
                {choice.name} <span className="number">{choice.text}</span>
              </ListGroup.Item>
            ))}
            {isWaiting && <p className="quiet">The workings are evaluated for this run …</p>}
            {!isWaiting && left(typed).length === 0 && (
              <p className="quiet">
                {choices.length === 0
                  ? 'Nothing is worked out for this run yet. Mark a region on the Bench and work something out.'
                  : 'No value of this run is called so.'}
              </p>
            )}
          </ListGroup>
        )
      }
    </Palette>
  );
}
