import { type Run, investigationSchema } from '@heuristor/contracts';
import { useState } from 'react';
import { Button, Form, Modal } from 'react-bootstrap';
import { useServer } from '../api/queries';
import { useInvestigations } from '../home/useInvestigations';
import { useInvestigation, useInvestigationDocuments } from '../investigation/context';
import { textOfCondition } from '../runs/conditions/conditionText';

const partsSchema = investigationSchema.pick({ plan: true, runs: true });

/** Takes runs of another investigation in: the same experiment, done by another class. */
export function TakeRuns({ onClose }: { onClose: () => void }) {
  const session = useInvestigation();
  const [search, setSearch] = useState('');
  const [from, setFrom] = useState<string | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const { list } = useInvestigations(search);
  const others = list?.filter(({ id, runCount }) => id !== session.id && runCount > 0);
  const choose = (id: string) => {
    setFrom(id);
    setChosen(new Set());
  };
  return (
    <Modal show onHide={onClose} size="lg" animation={false} scrollable aria-labelledby="take-runs-title">
      <Modal.Header closeButton closeLabel="Close">
        <Modal.Title id="take-runs-title">Runs of another investigation</Modal.Title>
      </Modal.Header>
      <Modal.Body className="take-runs">
        <div>
          <Form.Control
            autoFocus
            aria-label="Search investigations"
            placeholder="Search"
            value={search}
            onChange={({ target }) => setSearch(target.value)}
          />
          <div className="take-list" role="listbox" aria-label="Investigations">
            {others?.map(({ id, name, runCount }) => (
              <button
                key={id}
                role="option"
                aria-selected={id === from}
                className={`take-item ${id === from ? 'chosen' : ''}`}
                onClick={() => choose(id)}
              >
                {name} <span className="quiet">{runCount === 1 ? '1 run' : `${runCount} runs`}</span>
              </button>
            ))}
            {others?.length === 0 && <p className="quiet">No other investigation has runs.</p>}
          </div>
        </div>
        <div>
          {from === null ? (
            <p className="quiet">Choose an investigation; its runs come here.</p>
          ) : (
            <RunsOf investigation={from} chosen={chosen} onChoose={setChosen} />
          )}
        </div>
      </Modal.Body>
      <Modal.Footer>
        <span className="quiet">Copies come, with their conditions.</span>
        <Button variant="plain" onClick={onClose}>
          Cancel
        </Button>
        <Button
          variant="act"
          disabled={chosen.size === 0}
          onClick={() =>
            void session.runActions.takeIn(session.id, [...chosen]).then((isDone) => isDone && onClose())
          }
        >
          {chosen.size < 2 ? 'Take in the run' : `Take in ${chosen.size} runs`}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

interface RunsProps {
  investigation: string;
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>) => void;
}

/** Runs that are over, of which some are chosen; what the sheet here needs and they do not have is said. */
function RunsOf({ investigation, chosen, onChoose }: RunsProps) {
  const { answer, fault } = useServer(`/investigations/${investigation}/runs`, partsSchema);
  const own = useInvestigationDocuments(({ runs }) => runs);
  if (answer === null) return <p className="quiet">{fault ?? 'Loading …'}</p>;
  const runs = answer.runs.filter(
    ({ removed, practice, state }) => !removed && !practice && (state === 'ended' || state === 'interrupted'),
  );
  const needed = new Map(
    own
      .filter(({ removed }) => !removed)
      .flatMap(({ channels }) => channels.map(({ key, quantity }) => [key, quantity])),
  );
  const lacking = [...needed].filter(
    ([key]) => !runs.some(({ channels }) => channels.some((channel) => channel.key === key)),
  );
  const toggle = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    onChoose(next);
  };
  const saidOf = (run: Run) =>
    answer.plan.conditions
      .flatMap(({ key, name }) => {
        const text = textOfCondition(run.conditions[key]);
        return text === '' ? [] : [`${name} ${text}`];
      })
      .join(', ');
  return (
    <>
      <Form.Check
        id="take-all"
        label="All runs"
        checked={chosen.size === runs.length && runs.length > 0}
        onChange={({ target }) => onChoose(new Set(target.checked ? runs.map(({ id }) => id) : []))}
      />
      {runs.map((run) => (
        <Form.Check
          key={run.id}
          id={`take-${run.id}`}
          label={`${run.number} · ${run.name}${saidOf(run) === '' ? '' : ` (${saidOf(run)})`}`}
          checked={chosen.has(run.id)}
          onChange={() => toggle(run.id)}
        />
      ))}
      {lacking.length > 0 && own.length > 0 && (
        <p className="quiet">
          These have no {lacking.map(([key, quantity]) => `${quantity} (${key})`).join(', ')}: what is worked
          out of that stays empty for them.
        </p>
      )}
    </>
  );
}
