import { type EntryOfKind, type JointFit, isFit, relationOf } from '@heuristor/core';
import { useEffect, useState } from 'react';
import { Form, Modal } from 'react-bootstrap';
import { sentenceOf } from '../../api/client';
import { useDialog, useDocuments, useNames, usePicture, useSession } from '../../investigation/context';
import { shownRuns } from '../../runs/runs';
import { LineSample } from '../../runs/LineSample';
import { ResultText } from '../../ui/ResultText';
import { type ShownResult } from '../../workers/protocol';
import { fitTogether } from '../../runs/severalRuns';
import { written } from '../../ui/numberText';

export function JointFitDialog() {
  const id = useDialog('jointFit')?.entry;
  const entry = useDocuments(({ workings }) => workings.entries.find((one) => one.id === id));
  return entry !== undefined && isFit(entry) ? <OpenJointFit entry={entry} /> : null;
}

type State = { fit: JointFit } | { fault: string } | null;

function OpenJointFit({ entry }: { entry: EntryOfKind<'fit' | 'formulaFit'> }) {
  const session = useSession();
  const nameOf = useNames();
  const { workings, runs } = useDocuments((documents) => documents);
  const shown = shownRuns(runs);
  const names = usePicture((picture) => {
    const outcome = shown
      .map(({ id }) => picture.outcomes[id]?.[entry.id])
      .find((one) => one?.kind === 'results');
    return outcome?.kind === 'results' ? outcome.results : none;
  }).slice(0, countOf(entry));
  const [shared, setShared] = useState<readonly number[]>(() => usuallyShared(names));
  const [state, setState] = useState<State>(null);
  const ids = shown.map(({ id }) => id).join();
  useEffect(() => {
    let left = false;
    setState(null);
    fitTogether(session.pool, ids.split(','), workings, entry.id, [...shared]).then(
      (fit) => !left && setState({ fit }),
      (error: unknown) => !left && setState({ fault: sentenceOf(error) }),
    );
    return () => {
      left = true;
    };
  }, [session, ids, workings, entry.id, shared]);
  const { close } = session.dialogs;
  const fit = state !== null && 'fit' in state ? state.fit : null;
  return (
    <Modal show onHide={close} size="lg" scrollable aria-labelledby="joint-title" animation={false}>
      <Modal.Header closeButton>
        <Modal.Title id="joint-title">
          One {entry.kind === 'fit' ? relationOf(entry.relation).title : 'formula'} through {nameOf(entry.of)}{' '}
          of all shown runs
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="joint-fit">
        <p className="quiet small">
          A parameter that is the same in all runs is found from all their readings together; each run counts
          by the uncertainty that its own fit has.
        </p>
        <table>
          <thead>
            <tr>
              <th>Parameter</th>
              <th>The same in all runs</th>
              <th>Value</th>
            </tr>
          </thead>
          <tbody>
            {names.map(({ key, name, unit }, k) => (
              <tr key={key} data-parameter={key}>
                <th>{name}</th>
                <td>
                  <Form.Check
                    aria-label={`${name} is the same in all runs`}
                    checked={shared.includes(k)}
                    onChange={({ target }) =>
                      setShared(target.checked ? [...shared, k] : shared.filter((one) => one !== k))
                    }
                  />
                </td>
                <td className="mono">
                  {fit?.parameters[k]?.map((parameter, s) => (
                    <div key={s}>
                      {fit.parameters[k].length > 1 && <LineSample style={shown[s].style} width={20} />}{' '}
                      <ResultText
                        result={{
                          roundTo: null,
                          value: parameter.value,
                          halfWidth: parameter.halfWidth,
                          unit,
                        }}
                      />
                    </div>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {state === null && <p className="quiet">Working it out …</p>}
        {state !== null && 'fault' in state && <p role="alert">{state.fault}</p>}
        {fit !== null && shared.length > 0 && <p className="note">{chanceWords(fit.chance)}</p>}
      </Modal.Body>
    </Modal>
  );
}

/** How many parameters of an entry are found by a fit. */
const countOf = (entry: EntryOfKind<'fit' | 'formulaFit'>): number =>
  entry.kind === 'fit'
    ? relationOf(entry.relation).parameterCount
    : Object.values(entry.parameters).filter(({ held }) => !held).length;

const none: ShownResult[] = [];

/** What runs of one apparatus have in common more often than not: what the relation is fitted for. */
const usuallyShared = (names: readonly ShownResult[]): number[] =>
  names.flatMap(({ main }, k) => (main ? [k] : []));

/** Whether the runs can have the same parameters, for somebody who has not heard of tests. */
function chanceWords(chance: number): string {
  if (chance > 0.05)
    return 'The runs may well have these in common: they differ no more than their scatter makes them.';
  const once =
    chance < 1e-4
      ? 'less than once in ten thousand times'
      : `${written((100 * chance).toPrecision(2))} times in a hundred`;
  return `The runs do not have all of these in common: by chance they would differ as much ${once}. Share fewer, or look for what was different.`;
}
