import { type Drawn } from '@heuristor/core';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { sentenceOf } from '../../api/client';
import { useDocuments, useSession } from '../../investigation/context';
import { drawnWords } from './drawnWords';
import { type ShownResult } from '../../workers/protocol';
import { written } from '../../ui/numberText';

const draws = 200_000;

/** Whether first-order propagation is good enough, by drawing what stands in the formula many times. */
export function DrawnCheck({
  entryId,
  runId,
  result,
}: {
  entryId: string;
  runId: string;
  result: ShownResult;
}) {
  const session = useSession();
  const workings = useDocuments((documents) => documents.workings);
  const [state, setState] = useState<{ drawn: Drawn } | { fault: string } | 'asked' | null>(null);
  // What was drawn speaks of the sheet as it was then.
  useEffect(() => setState(null), [workings, runId]);
  const draw = () => {
    setState('asked');
    session.pool.demand(runId, 'drawn', { workings, entryId, count: draws }).then(
      (drawn) => setState({ drawn }),
      (error: unknown) => setState({ fault: sentenceOf(error) }),
    );
  };
  if (result.standardUncertainty === null) return null;
  return (
    <div className="drawn-check" role="region" aria-label={`${result.name} by many draws`}>
      {state === null && (
        <Button variant="plain" size="sm" onClick={draw}>
          Check by Monte Carlo (200 000 draws)
        </Button>
      )}
      {state === 'asked' && <span className="quiet">Drawing …</span>}
      {state !== null && state !== 'asked' && (
        <p className="note">{'fault' in state ? written(state.fault) : drawnWords(result, state.drawn)}</p>
      )}
    </div>
  );
}
